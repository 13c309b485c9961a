import { describe, expect, it } from 'vitest'
import { amplitude } from './decibels'
import { fadeGain } from './fades'
import { Finisher, type FinishPlan } from './finisher'
import { Leveller, levellingOf, reductionDb } from './leveller'
import { Limiter } from './limiter'
import { SoundMeter } from './soundMeter'

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

/** Speech-like: bursts of noise and tone, soft and loud, with peaks between samples. */
function burst(seconds: number, channels = 2): Float32Array {
  let seed = 7
  return Float32Array.from({ length: seconds * rate * channels }, (_, i) => {
    seed = (seed * 1_664_525 + 1_013_904_223) >>> 0
    const t = Math.floor(i / channels) / rate
    const loud = Math.sin(t * 0.5) > 0 ? 0.7 : 0.08
    return loud * (Math.sin(2 * Math.PI * 11_025 * t + 0.78) * 0.6 + (seed / 2 ** 32 - 0.5) * 0.8)
  })
}

function finished(sound: Float32Array, plan: Partial<FinishPlan>, chunk = 9001 * 2) {
  const finisher = new Finisher({ ...plain, ...plan })
  const out: Buffer[] = []
  const take = (part: Float32Array): void => void out.push(Buffer.from(part.slice().buffer))
  for (let at = 0; at < sound.length; at += chunk) take(finisher.push(sound.slice(at, at + chunk)))
  const { rest, ...report } = finisher.finish()
  take(rest)
  const bytes = Buffer.concat(out)
  return { sound: new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length)), ...report }
}

const same = (one: Float32Array, other: Float32Array): boolean =>
  one.length === other.length && one.every((value, i) => value === other[i])

function measure(sound: Float32Array, channels: 1 | 2 = 2) {
  const meter = new SoundMeter(rate, channels)
  meter.push(sound)
  return meter.finish().measurement
}

describe('the limiter', () => {
  it.each([0, 6, 12, 20])('holds the true peak under the ceiling at %i dB of gain', gainDb => {
    const { sound, limitedByDb } = finished(burst(6), { gainDb, ceilingDbtp: -1 })
    expect(measure(sound).truePeakDbtp).toBeLessThanOrEqual(-0.95)
    expect(limitedByDb).toBeGreaterThan(gainDb - 3)
  })
  it('loses no frame and moves none', () => {
    const sound = burst(2)
    expect(same(finished(sound, { ceilingDbtp: 20 }).sound, sound)).toBe(true)
    const limited = finished(sound, { gainDb: 12, ceilingDbtp: -1 }).sound
    expect(limited.length).toBe(sound.length)
    expect(limited.every((value, i) => Math.sign(value) === Math.sign(sound[i]!) || value === 0)).toBe(true)
  })
  it('does the same however the sound comes in', () => {
    const whole = finished(burst(1), { gainDb: 9, ceilingDbtp: -1 }, 1e9).sound
    expect(same(finished(burst(1), { gainDb: 9, ceilingDbtp: -1 }, 14).sound, whole)).toBe(true)
  })
  it('leaves alone what stays under the ceiling, to the last bit', () => {
    const limiter = new Limiter(rate, 1, -1)
    const soft = burst(1, 1).map(value => value * 0.2)
    expect(same(Float32Array.from([...limiter.push(soft), ...limiter.finish()]), soft)).toBe(true)
  })
  it('takes nothing at all', () => expect(new Limiter(rate, 2, -1).finish()).toHaveLength(0))
})

describe('levelling', () => {
  // Common practice, no source: the threshold for speech starts at about −15 dB.
  it('starts at −15 dB and leaves everything alone at the knob’s end', () => {
    expect(levellingOf(0)).toEqual({ thresholdDb: -15, ratio: 1 })
    for (const levelDb of [-60, -15, 0]) expect(reductionDb(levelDb, 0)).toBe(0)
  })
  it('turns a steady level down by what the ratio says', () => {
    const leveller = new Leveller(rate, 1, 1)
    const tone = Float32Array.from(
      { length: rate * 2 },
      (_, i) => amplitude(-6) * Math.SQRT2 * Math.sin((2 * Math.PI * 441 * i) / rate),
    )
    leveller.process(tone)
    const { thresholdDb, ratio } = levellingOf(1)
    const rms = Math.sqrt(tone.subarray(rate).reduce((sum, value) => sum + value * value, 0) / rate)
    expect(20 * Math.log10(rms)).toBeCloseTo(thresholdDb + (-6 - thresholdDb) / ratio, 0)
    expect(leveller.reductionsDb).toHaveLength(20)
  })
  it('brings soft and loud closer, the more the knob is turned', () => {
    const ranges = [0, 0.5, 1].map(levelling => measure(finished(burst(26), { levelling }).sound).rangeLu)
    expect(ranges[1]).toBeLessThan(ranges[0]! - 2)
    expect(ranges[2]).toBeLessThan(ranges[1]! - 2)
  })
})

describe('trim and fades', () => {
  it('keep what lies between the ends, sample for sample, however the sound comes in', () => {
    const tone = Float32Array.from(
      { length: rate * 2 * 2 },
      (_, i) => Math.sin((2 * Math.PI * 100 * (i >> 1)) / rate + 0.5) * 0.5,
    )
    for (const chunk of [14, 9000, 1e9]) {
      expect(
        same(finished(tone, { fromFrame: 1000, toFrame: 50_000 }, chunk).sound, tone.subarray(2000, 100_000)),
      ).toBe(true)
    }
  })
  it('begin and end softly on both sides where a loud sound is cut, whatever stands there', () => {
    // The left side crosses zero where the right one is at its loudest.
    const tone = Float32Array.from(
      { length: rate * 2 * 2 },
      (_, i) => Math.sin((2 * Math.PI * 100 * (i >> 1)) / rate + ((i % 2) * Math.PI) / 2) * 0.5,
    )
    const { sound } = finished(tone, {
      fromFrame: 4410,
      toFrame: 44_100,
      fades: { inFrames: 220, outFrames: 220, shape: 'logarithmic' },
    })
    for (const at of [0, 1, sound.length - 2, sound.length - 1]) expect(Math.abs(sound[at]!)).toBeLessThan(0.01)
  })
  it('without a cut keep every frame', () => {
    const sound = burst(1)
    expect(same(finished(sound, { toFrame: rate * 5 }).sound, sound)).toBe(true)
  })
  it.each(['linear', 'logarithmic'] as const)('open and close a %s fade, and leave the middle alone', shape => {
    const ones = new Float32Array(rate * 2 * 2).fill(0.5)
    const { sound } = finished(ones, { toFrame: rate * 2, fades: { inFrames: 4410, outFrames: 8820, shape } })
    expect(sound[0]).toBeLessThan(0.01)
    expect(sound.at(-1)).toBeLessThan(0.01)
    expect(sound[rate * 2]).toBe(0.5)
    expect(sound[4410]! / 0.5).toBeCloseTo(fadeGain(0.5, shape), 2)
  })
  it('a logarithmic fade is 30 dB down half-way, a linear one 6 dB', () => {
    expect(20 * Math.log10(fadeGain(0.5, 'logarithmic'))).toBeCloseTo(-30, 5)
    expect(20 * Math.log10(fadeGain(0.5, 'linear'))).toBeCloseTo(-6, 1)
  })
})

// Common practice, no source: raising from −9 dB to −3 dB peak is +6 dB of gain.
it('raising a peak from −9 dB to −3 dB takes 6 dB of gain', () => {
  const tone = Float32Array.from(
    { length: rate * 2 },
    (_, i) => amplitude(-9) * Math.sin((2 * Math.PI * 997 * (i >> 1)) / rate),
  )
  expect(measure(finished(tone, { gainDb: 6 }).sound).samplePeakDbfs).toBeCloseTo(-3, 2)
})
