import { describe, expect, it } from 'vitest'
import { advice } from './advice'
import { deliveryFindings } from './delivery'
import { storedFinding } from './findings'
import { findingWords } from './findingWords'
import { ceilingBeforeEncoding, missOf, planBeforeGain, targetBeforeEncoding, trimOf } from './finishPlan'
import type { Measurement } from './measurement'
import { firstRecipe } from './recipe'
import { cuttingPlaces, snapped } from './snap'
import { heardLufs, usualLoudness } from './usual'

const fine: Measurement = {
  durationMs: 1_800_000,
  sampleRateHz: 44_100,
  channels: 2,
  integratedLufs: -16.2,
  rangeLu: 6,
  momentaryMaxLufs: -11,
  shortTermMaxLufs: -13,
  truePeakDbtp: -1.4,
  samplePeakDbfs: -1.5,
  clips: [],
  clipCount: 0,
  headSilenceMs: 120,
  tailSilenceMs: 800,
  gaps: [],
  image: 'stereo',
}
const judge = (change: Partial<Measurement>, usualLufs: number | null = null) =>
  advice({ ...fine, ...change }, { recipe: firstRecipe, usualLufs })
const codes = (change: Partial<Measurement>): string[] => judge(change).map(({ code }) => code)

describe('what a measurement gives reason to say', () => {
  it('is nothing where all is well', () => expect(judge({})).toEqual([]))

  it('names the distance, the gain, where the peak would be, and the limiting it needs', () => {
    expect(findingWords(judge({ integratedLufs: -21.1, truePeakDbtp: -3.9 }, -16)[0]!).says).toBe(
      '5.1 LU quieter than your episodes usually are. Raising it by 5.1 dB would put the loudest moment at +1.2 dBTP, so it needs limiting.',
    )
    const [louder] = judge({ integratedLufs: -12 })
    expect(louder).toMatchObject({ code: 'louder', fix: 'finish' })
    expect(findingWords(louder!).says).toBe(
      '4.0 LU louder than the show’s target. Lowering it by 4.0 dB would put the loudest moment at −5.4 dBTP.',
    )
  })

  // Common practice, no source: one channel at −19 LUFS sounds as loud as two at −16.
  it('takes −19 LUFS in one channel for as loud as −16 in two', () => {
    expect(codes({ channels: 1, image: 'mono', integratedLufs: -19 })).toEqual([])
    expect(codes({ channels: 1, image: 'mono', integratedLufs: -16 })).toEqual(['louder'])
  })

  it.each([
    [{ truePeakDbtp: 0.6 }, 'peaks', 'warning'],
    [{ truePeakDbtp: -0.5 }, 'peaks', 'note'],
    [{ clipCount: 3, clips: [{ fromMs: 61_000, toMs: 61_010 }] }, 'clipped', 'warning'],
    [{ headSilenceMs: 2400 }, 'head-silence', 'warning'],
    [{ tailSilenceMs: 12_000 }, 'tail-silence', 'warning'],
    [{ gaps: [{ fromMs: 5000, toMs: 9000 }] }, 'gaps', 'note'],
    [{ image: 'one side only' as const }, 'one-side', 'warning'],
    [{ image: 'dual mono' as const }, 'dual-mono', 'note'],
    [{ rangeLu: 17 }, 'range', 'note'],
    [{ integratedLufs: null, truePeakDbtp: null, samplePeakDbfs: null }, 'silent', 'error'],
  ])('%j: %s', (change, code, severity) => {
    const [found] = judge(change)
    expect(found).toMatchObject({ code, severity })
    for (const words of Object.values(findingWords(found!))) expect(words).toMatch(/\w.*\.$/)
  })

  it('is kept as code and figures; what an earlier version kept as sentences is told in those', () => {
    const [found] = judge({ rangeLu: 17 })
    expect(storedFinding(found!)).toBe(found)
    const told = { says: 'The file looks cut short.', rule: 'Frames.', ifItStays: 'Listen to the end.' }
    const before = { ...told, code: 'cut-short', severity: 'warning' as const, fix: null, places: [] }
    expect(findingWords(storedFinding(before))).toEqual(told)
  })

  it('puts the gravest first', () => {
    expect(judge({ rangeLu: 20, headSilenceMs: 3000 }).map(({ severity }) => severity)).toEqual(['warning', 'note'])
  })

  it('says of a form that apps cannot play that it must be encoded', () => {
    expect(deliveryFindings({ type: 'audio/flac', channels: 6 }).map(found => findingWords(found).says)).toEqual([
      'FLAC cannot be published as is.',
      'It has 6 channels.',
    ])
    expect(deliveryFindings({ type: 'audio/mp4', channels: 2 })).toEqual([])
  })
})

describe('a plan', () => {
  it('raises to the target, takes the encoder into account, and mends what a try missed', () => {
    const recipe = { ...firstRecipe, encoding: 'm4a' as const }
    const none = { lu: 0, peakDb: 0 }
    expect(targetBeforeEncoding(recipe, 2, none)).toBe(-16)
    expect(targetBeforeEncoding(firstRecipe, 2, none)).toBeCloseTo(-16 - 20 * Math.log10(0.95), 6)
    expect(ceilingBeforeEncoding(recipe, none)).toBeLessThan(-1)
    const miss = missOf(recipe, { ...fine, integratedLufs: -16.6, truePeakDbtp: -0.7 })
    expect(targetBeforeEncoding(recipe, 2, miss)).toBeCloseTo(-15.4)
    expect(ceilingBeforeEncoding(recipe, miss)).toBeCloseTo(ceilingBeforeEncoding(recipe, none) - 0.5)
    expect(missOf(recipe, fine)).toEqual({ lu: 0, peakDb: 0 })
  })
  it('fades a cut for a few milliseconds, and an end that nobody cut not at all', () => {
    expect(planBeforeGain({ ...firstRecipe, fromMs: 1000 }, fine).fades).toMatchObject({ inFrames: 221, outFrames: 0 })
    expect(planBeforeGain({ ...firstRecipe, toMs: 60_000, fadeOutMs: 2000 }, fine).fades).toMatchObject({
      inFrames: 0,
      outFrames: 88_200,
    })
  })
  it('cuts silence off and leaves a breath of it; of silence alone it cuts nothing', () => {
    expect(trimOf({ ...fine, headSilenceMs: 2400, tailSilenceMs: 5000 })).toEqual({ fromMs: 2150, toMs: 1_796_000 })
    expect(trimOf(fine)).toEqual({ fromMs: null, toMs: null })
    expect(trimOf({ ...fine, headSilenceMs: fine.durationMs })).toEqual({ fromMs: null, toMs: null })
  })
})

it('a handle snaps to the edge of silence where that is near', () => {
  const places = cuttingPlaces({ ...fine, headSilenceMs: 2000, gaps: [{ fromMs: 60_000, toMs: 64_000 }] })
  expect([snapped(2080, places, 100), snapped(2300, places, 100), snapped(63_950, places, 100)]).toEqual([
    2000, 2300, 64_000,
  ])
})

it('how loud a show usually is, is the median, with one channel counted as it is heard', () => {
  expect(
    [
      { integratedLufs: -16, channels: 2 },
      { integratedLufs: -21, channels: 1 },
      { integratedLufs: null, channels: 1 },
    ].map(heardLufs),
  ).toEqual([-16, -18, null])
  expect(usualLoudness([-16, -30, -18])).toBe(-18)
  expect(usualLoudness([-16, -18])).toBe(-17)
  expect(usualLoudness([-16])).toBeNull()
})
