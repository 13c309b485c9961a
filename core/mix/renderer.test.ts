import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { amplitude } from '../audio/decibels'
import { fadeGain } from '../audio/fades'
import { tones } from '../audio/tones.fixture'
import { type MixDocument, usualDucking } from './document'
import { layoutOf } from './layout'
import { bedOf, fileOf, mixOf, pieceOf } from './mix.fixture'
import { planOf } from './plan'
import { MixRenderer } from './renderer'

const rate = 8_000
const noise = (seconds: number, seed: number, peak = 0.1): Float32Array =>
  Float32Array.from({ length: seconds * rate }, () => {
    seed = (seed * 1_664_525 + 1_013_904_223) >>> 0
    return (seed / 2 ** 31 - 1) * peak
  })
const tone = (seconds: number, dbfs: number, hz: number): Float32Array => tones([{ seconds, dbfs, hz }], rate, 1)

/** Mixes mono sounds, the nth of which is file n, in portions of so many frames. */
function mixed(mix: MixDocument, given: Readonly<Record<number, Float32Array>>, portion = 1_000): Float32Array {
  const byFile = new Map(Object.entries(given).map(([n, sound]) => [fileOf(Number(n)), sound]))
  const lengthOf = (fileId: string): number => ((byFile.get(fileId)?.length ?? 0) / rate) * 1000
  const plan = planOf(layoutOf(mix, lengthOf), { sampleRateHz: rate, channels: 1 }, lengthOf)
  const renderer = new MixRenderer(plan)
  const whole = new Float32Array(plan.frames)
  const asked = new Map<number, number>()
  for (let at = 0; !renderer.isAtEnd;) {
    const needs = renderer.needs(portion)
    const sounds = needs.map(({ segment, fileId, fromFrame, frames }) => {
      // A decoder goes on where it was.
      expect(fromFrame).toBe(asked.get(segment) ?? plan.segments[segment]!.fromFrame)
      asked.set(segment, fromFrame + frames)
      return byFile.get(fileId)!.slice(fromFrame, fromFrame + frames)
    })
    const part = renderer.render(portion, sounds)
    whole.set(part, at)
    at += part.length
  }
  for (const [segment, end] of asked)
    expect(end).toBe(plan.segments[segment]!.fromFrame + plan.segments[segment]!.frames)
  return whole
}

/** What ffmpeg makes of mono sounds. */
function byFfmpeg(filter: string, ...sounds: Float32Array[]): Float32Array {
  const folder = mkdtempSync(join(tmpdir(), 'lake-letter-mix-'))
  try {
    const input = ['-f', 'f32le', '-ar', String(rate), '-ac', '1']
    const inputs = sounds.flatMap((sound, n) => {
      const path = join(folder, String(n))
      writeFileSync(path, Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength))
      return [...input, '-i', path]
    })
    const out = join(folder, 'out')
    const { stderr, status } = spawnSync(
      'ffmpeg',
      ['-v', 'error', ...inputs, '-filter_complex', filter, ...input, out],
      {
        encoding: 'utf8',
      },
    )
    if (status !== 0) throw new Error(stderr)
    return new Float32Array(new Uint8Array(readFileSync(out)).buffer)
  } finally {
    rmSync(folder, { recursive: true })
  }
}

const furthest = (one: Float32Array, other: Float32Array): number => {
  expect(one.length).toBe(other.length)
  return one.reduce((most, value, i) => Math.max(most, Math.abs(value - other[i]!)), 0)
}
/** The level of peaks that a steady sound has between two moments, in dB. */
const levelAt = (sound: Float32Array, fromS: number, toS: number): number => {
  const part = sound.subarray(Math.round(fromS * rate), Math.round(toS * rate))
  return 10 * Math.log10((2 * part.reduce((sum, value) => sum + value * value, 0)) / part.length)
}
const whole = (sound: Float32Array): [number, number][] => [[0, (sound.length / rate) * 1000]]

describe('what comes out', () => {
  it('of one piece that nothing was done to is that piece, to the last bit', () => {
    const sound = noise(3.5, 1)
    expect(mixed(mixOf([pieceOf(1, whole(sound))]), { 1: sound }, 777)).toEqual(sound)
  })
  it('is the same in whatever portions it is asked for', () => {
    const sounds = { 1: noise(4, 1), 2: noise(3, 2), 3: noise(0.7, 3) }
    const mix = mixOf(
      [
        pieceOf(1, [
          [100, 1_500],
          [1_503, 1_600],
          [2_000, 3_900],
        ]),
        pieceOf(2, whole(sounds[2]), { overlapMs: 900, shape: 'equal power', fadeOutMs: 300 }),
      ],
      [
        bedOf(3, 1, 4_000, { offsetMs: -500, ducking: usualDucking, shape: 'logarithmic', fadeOutMs: 800 }),
        bedOf(1, 2, 1_000, {
          startMs: 200,
          points: [
            { atMs: 100, gainDb: -3 },
            { atMs: 600, gainDb: -20 },
          ],
        }),
      ],
    )
    const at = mixed(mix, sounds, 1e6)
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9_000 }), portion => {
        expect(furthest(mixed(mix, sounds, portion), at)).toBe(0)
      }),
      { numRuns: 12 },
    )
  })
  it('where a file says less than it promised is silence, and all else in its place', () => {
    const sound = noise(2, 1)
    const lengthOf = (): number => 3_000
    const mix = mixOf([pieceOf(1, [[0, 3_000]])])
    const renderer = new MixRenderer(planOf(layoutOf(mix, lengthOf), { sampleRateHz: rate, channels: 1 }, lengthOf))
    const out = renderer.render(4 * rate, [sound])
    expect(out.length).toBe(3 * rate)
    expect(out.subarray(0, sound.length)).toEqual(sound)
    expect(out.subarray(sound.length).every(value => value === 0)).toBe(true)
  })
  it('has no click where something was cut out, and lasts as long as what is kept', () => {
    const sound = tone(4, -6, 100)
    // Half a wave is missing: what meets are the two sides of the tone.
    const out = mixed(
      mixOf([
        pieceOf(1, [
          [0, 1_000],
          [1_505, 4_000],
        ]),
      ]),
      { 1: sound },
    )
    expect(out.length).toBe(3.495 * rate)
    const steepest = (of: Float32Array): number =>
      of.reduce((most, value, i) => Math.max(most, Math.abs(value - (of[i - 1] ?? value))), 0)
    expect(steepest(out)).toBeLessThan(2 * steepest(sound))
    expect(out.subarray(0, 0.99 * rate)).toEqual(sound.subarray(0, 0.99 * rate))
    expect(out.subarray(1.01 * rate)).toEqual(sound.subarray(1.515 * rate))
  })
  it('of a bed that is too short goes round without a hole, and ends with the time that it was given', () => {
    const out = mixed(mixOf([pieceOf(1, [[0, 9_000]])], [bedOf(2, 1, 9_000)]), {
      1: new Float32Array(9 * rate),
      2: noise(2.5, 5),
    })
    expect(out.length).toBe(9 * rate)
    const usual = levelAt(out, 0, 1)
    for (let at = 0; at < 9; at += 0.25) expect(Math.abs(levelAt(out, at, at + 0.25) - usual)).toBeLessThan(0.6)
  })
  it('is faded over its cuts and its turns as if there were none', () => {
    const flat = new Float32Array(6 * rate).fill(0.5)
    const fades = { fadeInMs: 3_000, fadeOutMs: 2_500 }
    const whole = mixed(mixOf([pieceOf(1, [[0, 5_000]], fades)]), { 1: flat })
    const kept: [number, number][] = [
      [0, 1_000],
      [1_500, 4_000],
      [4_500, 6_000],
    ]
    expect(furthest(mixed(mixOf([pieceOf(1, kept, fades)]), { 1: flat }), whole)).toBeLessThan(1e-6)
    // A bed of turns that are shorter than its fades; what is alike is louder where it is crossfaded by equal power, and nowhere else.
    const silence = new Float32Array(5 * rate)
    const turns = (more: object) =>
      mixed(mixOf([pieceOf(1, [[0, 5_000]])], [bedOf(2, 1, 5_000, more)]), { 1: silence, 2: flat.slice(0, 1.2 * rate) })
    const [even, faded] = [turns({}), turns(fades)]
    for (let i = 0; i < whole.length; i++) expect(faded[i]!).toBeCloseTo((even[i]! * whole[i]!) / 0.5, 6)
  })
  it('of hundreds of pieces with hundreds of cuts asks for each frame once', () => {
    const sound = noise(2, 7)
    const kept = Array.from({ length: 60 }, (_, n): [number, number] => [n * 30, n * 30 + 15])
    const pieces = Array.from({ length: 300 }, (_, n) => ({
      ...pieceOf(n, kept, { overlapMs: 100 }),
      fileId: fileOf(1),
    }))
    expect(mixed(mixOf(pieces), { 1: sound }, 4_096).length / rate).toBeCloseTo(300 * 0.8 + 0.1, 6)
  })
})

describe('against ffmpeg', () => {
  const [one, other] = [noise(3, 11), noise(3, 12)]
  // acrossfade takes a gain at the beginning of a frame and this in its middle: half a frame of 4,000, of sounds of 0.1.
  it.each([
    ['linear', 'tri'],
    ['equal power', 'qsin'],
  ] as const)('two pieces that overlap are crossfaded: %s', (shape, curve) => {
    const mix = mixOf([pieceOf(1, whole(one)), pieceOf(2, whole(other), { overlapMs: 500, shape })])
    const theirs = byFfmpeg(`acrossfade=ns=4000:c1=${curve}:c2=${curve}`, one, other)
    expect(furthest(mixed(mix, { 1: one, 2: other }), theirs)).toBeLessThan(amplitude(-90))
  })
  it('beds and pieces are added, and no louder or softer for it', () => {
    const mix = mixOf([pieceOf(1, whole(one))], [bedOf(2, 1, 3_000)])
    expect(furthest(mixed(mix, { 1: one, 2: other }), byFfmpeg('amix=normalize=0', one, other))).toBeLessThan(1e-7)
  })
  it('a fade that is even in dB is theirs, which goes down to −100 dB, at three fifths of its depth', () => {
    const flat = new Float32Array(rate).fill(1)
    const theirs = byFfmpeg(`afade=t=in:ns=${rate}:curve=exp`, flat)
    for (const at of [0.2, 0.5, 0.8, 0.95])
      expect(20 * Math.log10(fadeGain(at, 'logarithmic'))).toBeCloseTo(0.6 * 20 * Math.log10(theirs[at * rate]!), 3)
  })
  it('a bed gives way to a steady voice as theirs does', () => {
    // Theirs hears the mean square, 3 dB under the peaks of a tone, which are 17 dB over the threshold so, and goes down by 19 dB for 20.
    const [voice, music] = [tone(6, -20, 1_000), tone(6, -20, 150)]
    const ducking = { thresholdDb: -40, depthDb: (19 / 20) * (20 - 3.01), attackMs: 50, releaseMs: 200, lookaheadMs: 0 }
    const theirs = byFfmpeg(
      '[0][1]sidechaincompress=threshold=0.01:ratio=20:attack=200:release=200:knee=1:detection=rms',
      music,
      voice,
    )
    const ours = mixed(mixOf([pieceOf(1, whole(voice))], [bedOf(2, 1, 6_000, { ducking })]), { 1: voice, 2: music })
    const bed = ours.map((value, i) => value - voice[i]!)
    expect(Math.abs(levelAt(bed, 3, 6) - levelAt(theirs, 3, 6))).toBeLessThan(0.2)
  })
})

describe('ducking', () => {
  const voice = new Float32Array(10 * rate)
  voice.set(tone(4, -12, 1_000), 3 * rate)
  const music = tone(10, -20, 150)
  const bedUnder = (ducking: typeof usualDucking): Float32Array => {
    const mix = mixOf([pieceOf(1, whole(voice))], [bedOf(2, 1, 10_000, { ducking })])
    return mixed(mix, { 1: voice, 2: music }).map((value, i) => value - voice[i]!)
  }
  const bed = bedUnder(usualDucking)
  // Common practice, no source: 15 dB under a voice.
  it('takes the music down by its depth while somebody speaks, and leaves it alone before and after', () => {
    expect(levelAt(bed, 0, 2.5)).toBeCloseTo(-20, 1)
    expect(levelAt(bed, 4, 6.5)).toBeCloseTo(-35, 1)
    expect(levelAt(bed, 9.5, 10)).toBeGreaterThan(-22)
  })
  it('goes by its time constants, and begins before the voice', () => {
    const at = (seconds: number): number => levelAt(bed, seconds, seconds + 0.02) + 20
    // 120 ms after it has begun, which is 200 ms before the voice, 63 % of 15 dB; the meter takes its own 10 ms.
    expect(at(2.92 - 0.01)).toBeCloseTo(-15 * (1 - Math.exp(-1)), -0.5)
    expect(at(3)).toBeLessThan(-11)
    // The voice ends at 7 s: 900 ms later it has come back by 63 %.
    expect(at(6.8 + 0.9)).toBeCloseTo(-15 * Math.exp(-1), -0.5)
  })
  it('of a voice under the threshold does nothing', () => {
    expect(levelAt(bedUnder({ ...usualDucking, thresholdDb: -11 }), 4, 6.5)).toBeCloseTo(-20, 1)
  })
})

it('a line of points is followed in dB, level before the first and after the last', () => {
  const music = new Float32Array(4 * rate).fill(0.5)
  const points = [
    { atMs: 1_000, gainDb: -6 },
    { atMs: 2_000, gainDb: -26 },
    { atMs: 2_000, gainDb: -3 },
  ]
  const mix = mixOf([pieceOf(1, [[0, 4_000]])], [bedOf(2, 1, 4_000, { points })])
  const out = mixed(mix, { 1: new Float32Array(4 * rate), 2: music })
  const gains = [0, 1, 1.5, 1.99, 2, 3.9].map(at => 20 * Math.log10(out[Math.round(at * rate)]! / 0.5))
  for (const [n, wanted] of [-6, -6, -16, -25.8, -3, -3].entries()) expect(gains[n]).toBeCloseTo(wanted, 1)
})

it('two sounds that have nothing to do with each other stay as loud where they are crossfaded by equal power', () => {
  const [one, other] = [noise(5, 21), noise(5, 22)]
  const out = mixed(
    mixOf([pieceOf(1, whole(one)), pieceOf(2, whole(other), { overlapMs: 4_000, shape: 'equal power' })]),
    { 1: one, 2: other },
  )
  const usual = levelAt(one, 0, 5)
  for (let at = 0; at < 6; at += 0.5) expect(Math.abs(levelAt(out, at, at + 0.5) - usual)).toBeLessThan(0.5)
})
