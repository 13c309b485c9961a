import { describe, expect, it } from 'vitest'
import { Finisher, type FinishPlan } from './finisher'
import { loudnessBehindLimiter, searchGain } from './gainSearch'
import { SoundMeter } from './soundMeter'
import { SoundProfiler } from './soundProfile'

const rate = 44_100
const plain: FinishPlan = {
  sampleRateHz: rate,
  channels: 2,
  fromFrame: 0,
  toFrame: Infinity,
  fades: { inFrames: 0, outFrames: 0, shape: 'linear' },
  gainBeforeDb: 0,
  levelling: 0,
  gainDb: 0,
  ceilingDbtp: null,
}

/** Music-like: long tones with drum hits that are far louder, ever denser; `hits` a second at the end. */
function music(seconds: number, hits: number, peak = 0.9, bed = 0.05): Float32Array {
  let seed = 11
  return Float32Array.from({ length: seconds * rate * 2 }, (_, i) => {
    seed = (seed * 1_664_525 + 1_013_904_223) >>> 0
    const t = (i >> 1) / rate
    const sinceHit = (t * hits * (0.3 + 0.7 * (t / seconds))) % 1
    return (
      bed * Math.sin(2 * Math.PI * 220 * t + (i & 1)) + peak * Math.exp(-sinceHit * 40) * (seed / 2 ** 32 - 0.5) * 2
    )
  })
}

function profileOf(sound: Float32Array) {
  const profiler = new SoundProfiler(rate, 2)
  for (let at = 0; at < sound.length; at += 30_002) profiler.push(sound.slice(at, at + 30_002))
  return profiler.finish()
}

function measureWith(sound: Float32Array, gainDb: number, ceilingDbtp: number | null) {
  const finisher = new Finisher({ ...plain, gainDb, ceilingDbtp })
  const meter = new SoundMeter(rate, 2)
  meter.push(finisher.push(sound.slice()))
  meter.push(finisher.finish().rest)
  return meter.finish().measurement
}

// Reference: the limiter and the meter themselves, on the whole sound.
describe('the loudness behind the limiter, told from a profile', () => {
  it('is the meter’s where nothing is limited', () => {
    const sound = music(12, 2)
    expect(loudnessBehindLimiter(profileOf(sound), -3, 0)).toBeCloseTo(measureWith(sound, -3, null).integratedLufs!, 1)
  })
  it.each([
    [2, 6],
    [4, 12],
    [8, 18],
  ])('agrees with the meter at %i hits a second and %i dB of gain', (hits, gainDb) => {
    const sound = music(12, hits)
    expect(
      Math.abs(
        loudnessBehindLimiter(profileOf(sound), gainDb, -1.6)! - measureWith(sound, gainDb, -1.6).integratedLufs!,
      ),
    ).toBeLessThan(0.15)
  })
})

describe('the gain for a target under a ceiling', () => {
  it.each([
    [1, -20],
    [3, -16],
    [6, -16],
    [9, -14],
  ])('is found for music of %i hits a second at %i LUFS', (hits, target) => {
    const sound = music(15, hits)
    const { gainDb, lufs, reaches } = searchGain(profileOf(sound), target, -1.6)
    const { integratedLufs, truePeakDbtp } = measureWith(sound, gainDb, -1.6)
    expect(reaches).toBe(true)
    expect(lufs).toBeCloseTo(target, 1)
    expect(Math.abs(integratedLufs! - target)).toBeLessThan(0.2)
    expect(truePeakDbtp).toBeLessThanOrEqual(-1.55)
  })
  it('is the plain difference where nothing needs limiting', () => {
    const sound = music(12, 2, 0.1)
    const own = measureWith(sound, 0, null).integratedLufs!
    expect(searchGain(profileOf(sound), own + 3, -1).gainDb).toBeCloseTo(3, 1)
  })
  it('stops short of a target that would only squeeze the peaks, and says so', () => {
    const found = searchGain(profileOf(music(12, 1.5, 0.95, 0.0005)), -6, -1)
    expect(found.reaches).toBe(false)
    expect(found.lufs).toBeLessThan(-6)
    expect(found.gainDb).toBeLessThan(40)
  })
  it('leaves silence alone', () => {
    expect(searchGain(profileOf(new Float32Array(rate * 4)), -16, -1)).toEqual({
      gainDb: 0,
      lufs: null,
      reaches: false,
    })
  })
})
