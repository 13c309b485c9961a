import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type MixDocument, usualDucking } from './document'
import { layoutOf } from './layout'
import { bedOf, fileOf, mixOf, pieceOf } from './mix.fixture'
import { mixed } from './mixed'
import { planOf } from './plan'
import type { OpenDecoder } from './tapes'

const rate = 1_000
const chunkFrames = 700
const noise = (seconds: number, seed: number): Float32Array =>
  Float32Array.from({ length: seconds * rate }, () => {
    seed = (seed * 1_664_525 + 1_013_904_223) >>> 0
    return (seed / 2 ** 31 - 1) * 0.1
  })
const files = new Map([noise(60, 1), noise(40, 2), noise(7, 3)].map((sound, n) => [fileOf(n + 1), sound]))
const lengthOf = (fileId: string): number => (files.get(fileId)!.length / rate) * 1000

const mix: MixDocument = mixOf(
  [
    pieceOf(1, [
      [0, 10_000],
      [10_300, 20_000],
      [50_000, 60_000],
    ]),
    pieceOf(2, [[3_000, 33_000]], { overlapMs: 2_000, shape: 'equal power' }),
    { ...pieceOf(3, [[21_000, 49_000]], { overlapMs: -1_500 }), fileId: fileOf(1) },
  ],
  [
    bedOf(3, 1, 40_000, { fadeOutMs: 3_000, points: [{ atMs: 5_000, gainDb: -3 }] }),
    { ...bedOf(4, 2, 20_000, { offsetMs: 8_000, ducking: usualDucking }), fileId: fileOf(3) },
  ],
)
const plan = planOf(layoutOf(mix, lengthOf), { sampleRateHz: rate, channels: 1 }, lengthOf)

/** Opens files some frames before what is asked for, and tells what was opened, and how many are open. */
function decoders(before = 0) {
  const opened: { fileId: string; frame: number }[] = []
  let open = 0
  const openDecoder: OpenDecoder = (fileId, frame) => {
    opened.push({ fileId, frame })
    const fromFrame = Math.max(0, frame - before)
    open++
    async function* chunks(): AsyncGenerator<Float32Array> {
      try {
        const sound = files.get(fileId)!
        for (let at = fromFrame; at < sound.length; at += chunkFrames) yield sound.subarray(at, at + chunkFrames)
      } finally {
        open--
      }
    }
    const made = chunks()
    return { fromFrame, chunks: made }
  }
  return { opened, openDecoder, open: () => open }
}
async function all(sound: AsyncIterable<Float32Array>): Promise<number[]> {
  const values: number[] = []
  for await (const part of sound) values.push(...part)
  return values
}

describe('a mix that is heard from somewhere', () => {
  it('is the rest of the whole, to the last bit where no bed gives way', async () => {
    const { beds: _, ...without } = mix
    const dry = { ...without, beds: [mix.beds[0]!] }
    const dryPlan = planOf(layoutOf(dry, lengthOf), { sampleRateHz: rate, channels: 1 }, lengthOf)
    const whole = await all(mixed(dryPlan, decoders().openDecoder))
    expect(whole.length).toBe(dryPlan.frames)
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: dryPlan.frames }),
        fc.integer({ min: 0, max: 900 }),
        async (from, before) => {
          const rest = await all(mixed(dryPlan, decoders(before).openDecoder, { from, patienceFrames: 2_000 }))
          expect(rest).toEqual(whole.slice(from))
        },
      ),
      { numRuns: 40 },
    )
  })

  it('gives way as it does in the whole, to 1 dB at once and closer with each moment', async () => {
    const whole = await all(mixed(plan, decoders().openDecoder))
    const from = 40_000
    const rest = await all(mixed(plan, decoders().openDecoder, { from, patienceFrames: 2_000 }))
    const furthest = (begin: number, end: number): number =>
      Math.max(...rest.slice(begin, end).map((value, n) => Math.abs(value - whole[from + begin + n]!)))
    // A bed of 0.1, 15 dB down, that is 1 dB off.
    expect(furthest(0, 1_000)).toBeLessThan(0.1 * (10 ** (-14 / 20) - 10 ** (-15 / 20)))
    expect(furthest(6_000, rest.length)).toBeLessThan(1e-4)
  })

  it('opens a file where it is heard, goes on over a short cut, and leaves nothing open', async () => {
    const { opened, openDecoder, open } = decoders()
    await all(mixed(plan, openDecoder, { from: 5_000, patienceFrames: 2_000 }))
    expect(opened.filter(({ fileId }) => fileId === fileOf(1)).map(({ frame }) => frame)).toEqual([
      5_000, 49_995, 21_000,
    ])
    expect(open()).toBe(0)
    const { openDecoder: patient, opened: once } = decoders()
    await all(mixed(plan, patient))
    expect(once.filter(({ fileId }) => fileId === fileOf(1)).map(({ frame }) => frame)).toEqual([0, 21_000])
  })

  it('leaves nothing open where it is left', async () => {
    const { openDecoder, open } = decoders()
    for await (const _part of mixed(plan, openDecoder, { from: 12_000 })) break
    expect(open()).toBe(0)
  })
})
