import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Stretch } from '../audio/measurement'
import { readPyramid } from '../audio/pyramid'
import { SoundMeter } from '../audio/soundMeter'
import { cutOf, cutsIn, quietestIn, shortenings, without, withAgain } from './cuts'
import { mixDocument } from './document'
import { mixOf, pieceOf } from './mix.fixture'

const stretches = (...of: [fromMs: number, toMs: number][]): Stretch[] => of.map(([fromMs, toMs]) => ({ fromMs, toMs }))
const whole = stretches([0, 10_000])

describe('cutting', () => {
  it.each([
    [
      'in the middle',
      [2_000, 3_000],
      [
        [0, 2_000],
        [3_000, 10_000],
      ],
    ],
    ['at the beginning', [0, 3_000], [[3_000, 10_000]]],
    ['beyond the end', [9_000, 20_000], [[0, 9_000]]],
    ['leaves nothing that is too short to hear', [5, 9_995], []],
    ['of all leaves nothing', [0, 10_000], []],
  ] as const)('%s', (_where, [fromMs, toMs], kept) => {
    expect(without(whole, { fromMs, toMs })).toEqual(kept.map(([from, to]) => ({ fromMs: from, toMs: to })))
  })
  it('what is brought back closes up with what it lies beside', () => {
    const cut = without(without(whole, { fromMs: 2_000, toMs: 3_000 }), { fromMs: 3_000, toMs: 4_000 })
    expect(cutsIn(cut)).toEqual(stretches([2_000, 4_000]))
    expect(withAgain(cut, { fromMs: 3_000, toMs: 4_000 })).toEqual(stretches([0, 2_000], [3_000, 10_000]))
    expect(withAgain(cut, { fromMs: 1_000, toMs: 5_000 })).toEqual(whole)
  })

  const grid = fc.integer({ min: 0, max: 100 }).map(n => n * 100)
  const step = fc.record({ isCut: fc.boolean(), one: grid, other: grid })
  it('leaves what was not struck, whatever was struck and brought back before; cut and kept make the whole', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), steps => {
        let kept = whole
        const heard = Array.from({ length: 100 }, () => true)
        for (const { isCut, one, other } of steps) {
          const stretch = { fromMs: Math.min(one, other), toMs: Math.max(one, other) }
          if (stretch.fromMs === stretch.toMs) continue
          kept = isCut ? without(kept, stretch) : withAgain(kept, stretch)
          heard.fill(!isCut, stretch.fromMs / 100, stretch.toMs / 100)
        }
        const isKept = (ms: number, of: readonly Stretch[]): boolean =>
          of.some(({ fromMs, toMs }) => ms >= fromMs && ms < toMs)
        expect(heard.map((_, n) => isKept(n * 100, kept))).toEqual(heard)
        const [first, last] = [kept[0]?.fromMs ?? 0, kept.at(-1)?.toMs ?? 0]
        for (let ms = first; ms < last; ms += 100) expect(isKept(ms, kept)).toBe(!isKept(ms, cutsIn(kept)))
        // What is left of it is what a mix takes.
        if (kept.length > 0)
          mixDocument.parse(
            mixOf([
              pieceOf(
                1,
                kept.map(({ fromMs, toMs }): [number, number] => [fromMs, toMs]),
              ),
            ]),
          )
      }),
    )
  })
})

describe('long silences', () => {
  const silences = stretches([1_000, 4_000], [5_000, 5_400], [8_000, 10_000])
  it('lose their middle, and those that are short enough nothing', () => {
    expect(shortenings(whole, silences, 600)).toEqual(stretches([1_300, 3_700], [8_300, 9_700]))
  })
  it('that reach over a cut are taken as long as they are heard', () => {
    expect(shortenings(stretches([0, 1_500], [3_500, 10_000]), silences, 600)).toEqual(stretches([8_300, 9_700]))
  })
  it('are none longer than was chosen afterwards', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 3_000 }), longestMs => {
        const kept = shortenings(whole, silences, longestMs).reduce(without, whole)
        for (const { fromMs, toMs } of silences) {
          const heard = kept.reduce(
            (sum, each) => sum + Math.max(0, Math.min(each.toMs, toMs) - Math.max(each.fromMs, fromMs)),
            0,
          )
          expect(heard).toBeLessThan(Math.min(longestMs, toMs - fromMs) + 10.001)
          expect(heard).toBeGreaterThan(Math.min(longestMs, toMs - fromMs) - 0.001)
        }
      }),
    )
  })
})

describe('what is struck', () => {
  // Three words of 400 ms, with pauses of 60 ms between them.
  const rate = 8_000
  const words = Array.from({ length: 3 }, (_, n) => ({ fromMs: 1_000 + n * 460, toMs: 1_400 + n * 460 }))
  const meter = new SoundMeter(rate, 1)
  meter.push(
    Float32Array.from({ length: 4 * rate }, (_, i) => {
      const ms = (i / rate) * 1000
      return words.some(({ fromMs, toMs }) => ms >= fromMs && ms < toMs)
        ? 0.3 * Math.sin((2 * Math.PI * 220 * i) / rate)
        : 0.0001
    }),
  )
  const pyramid = readPyramid(meter.finish().waveform)

  it('is cut where it is quiet, though it was found to begin too late and to end too soon', () => {
    const { fromMs, toMs } = cutOf({ fromMs: 1_500, toMs: 1_800 }, pyramid)
    expect(fromMs).toBeGreaterThan(1_399)
    expect(fromMs).toBeLessThan(1_461)
    expect(toMs).toBeGreaterThan(1_859)
    expect(toMs).toBeLessThan(1_921)
  })
  it('stays in order however short it is, and at the ends of the sound', () => {
    for (const [fromMs, toMs] of [
      [1_430, 1_450],
      [0, 30],
      [3_980, 4_000],
      [5_000, 6_000],
    ] as const) {
      const cut = cutOf({ fromMs, toMs }, pyramid)
      expect(cut.fromMs).toBeLessThanOrEqual(cut.toMs)
    }
  })
  it('is cut where it was found where nothing is known of the sound', () => {
    expect(quietestIn(pyramid, { fromMs: 5_000, toMs: 6_000 }, 5_500)).toBe(5_500)
  })
})
