import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { tones } from '@core/audio/tones.fixture'
import { type MixDocument, usualDucking } from '@core/mix/document'
import { layoutOf } from '@core/mix/layout'
import { bedOf, fileOf, mixOf, pieceOf } from '@core/mix/mix.fixture'
import { planOf } from '@core/mix/plan'
import { MixRenderer } from '@core/mix/renderer'
import { decoded } from './decoder'
import { framesOfMix, type MixedFile } from './mixed'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-mixed-'))
afterAll(() => rmSync(folder, { recursive: true }))

const rate = 48_000
/** Writes a sound as ffmpeg encodes it, and tells it as a file of a mix. */
function written(name: string, sound: Float32Array, channels: 1 | 2, parameters: readonly string[] = []): MixedFile {
  const [raw, path] = [join(folder, `${name}.raw`), join(folder, name)]
  writeFileSync(raw, Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength))
  const input = ['-f', 'f32le', '-ar', String(rate), '-ac', String(channels), '-i', raw]
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...input, ...parameters, path])
  return { path, junkBytes: 0, channels, durationMs: (sound.length / channels / rate) * 1000 }
}
const noise = (seconds: number, seed: number, channels: 1 | 2): Float32Array =>
  Float32Array.from({ length: seconds * rate * channels }, () => {
    seed = (seed * 1_664_525 + 1_013_904_223) >>> 0
    return (seed / 2 ** 31 - 1) * 0.1
  })
const filesOf = (files: Record<number, MixedFile>): Record<string, MixedFile> =>
  Object.fromEntries(Object.entries(files).map(([n, file]) => [fileOf(Number(n)), file]))

async function all(sound: AsyncIterable<Float32Array>): Promise<Float32Array> {
  const parts: Float32Array[] = []
  for await (const part of sound) parts.push(part.slice())
  const whole = new Float32Array(parts.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const part of parts) {
    whole.set(part, at)
    at += part.length
  }
  return whole
}
const render = (mix: MixDocument, files: Record<number, MixedFile>, channels: 1 | 2): Promise<Float32Array> =>
  all(framesOfMix({ mix, files: filesOf(files), sampleRateHz: rate, channels }))

/** The same, from files that are decoded whole before. */
async function fromMemory(mix: MixDocument, files: Record<number, MixedFile>, channels: 1 | 2): Promise<Float32Array> {
  const byId = filesOf(files)
  const sounds = new Map<string, Float32Array>()
  for (const [id, file] of Object.entries(byId)) {
    expect(file.channels).toBe(channels)
    sounds.set(id, await all(decoded({ ...file, channels, sampleRateHz: rate })))
  }
  const lengthOf = (id: string): number => byId[id]!.durationMs
  const renderer = new MixRenderer(planOf(layoutOf(mix, lengthOf), { sampleRateHz: rate, channels }, lengthOf))
  const parts: Float32Array[] = []
  while (!renderer.isAtEnd)
    parts.push(
      renderer.render(
        5_000,
        renderer
          .needs(5_000)
          .map(({ fileId, fromFrame, frames }) =>
            sounds.get(fileId)!.subarray(fromFrame * channels, (fromFrame + frames) * channels),
          ),
      ),
    )
  return Float32Array.from(parts.flatMap(part => [...part]))
}
const running = (): number =>
  execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' })
    .split('\n')
    .filter(line => line.startsWith('ffmpeg') && line.includes(folder)).length

describe('a mix of files', () => {
  it('of one piece to which nothing was done is its file, bit for bit', async () => {
    const file = written('one.wav', noise(3, 1, 2), 2, ['-c:a', 'pcm_f32le'])
    const mix = await render(mixOf([pieceOf(1, [[0, file.durationMs]])]), { 1: file }, 2)
    expect(mix).toEqual(await all(decoded({ ...file, channels: 2, sampleRateHz: rate })))
  })

  it('is what the same files come to from memory, with cuts, pieces out of order, loops and beds', async () => {
    const files = {
      1: written('voice.flac', noise(20, 2, 1), 1),
      2: written('music.mp3', noise(4, 3, 1), 1, ['-b:a', '128k']),
    }
    const cuts: [number, number][] = [
      [500, 2_000],
      [2_004, 2_100],
      [2_700, 6_000],
      [9_000, 12_345.6],
    ]
    const mix = mixOf(
      [
        pieceOf(1, cuts, { fadeInMs: 100 }),
        { ...pieceOf(3, [[11_000, 15_000]], { overlapMs: 800, shape: 'equal power' }), fileId: fileOf(1) },
        { ...pieceOf(4, [[0, 1_500]], { overlapMs: -200 }), fileId: fileOf(1) },
      ],
      [
        { ...bedOf(2, 1, 14_000, { offsetMs: -2_000, startMs: 250, gainDb: -6, ducking: usualDucking }) },
        { ...bedOf(5, 4, 3_000, { offsetFrom: 'end', offsetMs: -1_000, fadeOutMs: 900 }), fileId: fileOf(2) },
      ],
    )
    const [ours, theirs] = [await render(mix, files, 1), await fromMemory(mix, files, 1)]
    expect(ours.length).toBe(theirs.length)
    expect(ours.every((value, i) => value === theirs[i])).toBe(true)
    expect(running()).toBe(0)
  })

  // As W3C’s Web Audio API mixes one channel up and two down (“Channel up-mixing and down-mixing”, speakers), from memory.
  it('hears one channel on both sides as loud as in one, and both sides in one as their mean', async () => {
    const voice = written('mono.wav', tones([{ seconds: 1, dbfs: -20 }], rate, 1), 1, ['-c:a', 'pcm_f32le'])
    const both = noise(1, 5, 2)
    const stereo = written('stereo.wav', both, 2, ['-c:a', 'pcm_f32le'])
    const wide = await render(mixOf([pieceOf(1, [[0, 1_000]])]), { 1: voice }, 2)
    const mono = await all(decoded({ ...voice, channels: 1, sampleRateHz: rate }))
    expect(wide.every((value, i) => value === mono[i >> 1])).toBe(true)
    const one = await render(mixOf([pieceOf(1, [[0, 1_000]])]), { 1: stereo }, 1)
    expect(one.every((value, i) => Math.abs(value - (both[2 * i]! + both[2 * i + 1]!) / 2) < 1e-7)).toBe(true)
    const left = framesOfMix({
      mix: mixOf([pieceOf(1, [[0, 1_000]])]),
      files: filesOf({ 1: stereo }),
      sampleRateHz: rate,
      channels: 1,
      side: 'left',
    })
    expect((await all(left)).every((value, i) => value === both[2 * i])).toBe(true)
  })

  it('takes a piece of 8 kHz beside one of 96 kHz, each as long as it is', async () => {
    const files = {
      1: written('low.wav', tones([{ seconds: 2, dbfs: -20 }], rate, 1), 1, ['-ar', '8000']),
      2: written('high.wav', tones([{ seconds: 2, dbfs: -20 }], rate, 2), 2, ['-ar', '96000']),
    }
    const mix = await render(mixOf([pieceOf(1, [[0, 2_000]]), pieceOf(2, [[0, 2_000]])]), files, 2)
    expect(mix.length).toBe(4 * rate * 2)
    for (const second of [0.5, 1.5, 2.5, 3.5]) {
      const around = mix.subarray((second - 0.1) * rate * 2, (second + 0.1) * rate * 2)
      const rms = Math.sqrt(around.reduce((sum, value) => sum + value * value, 0) / around.length)
      expect(20 * Math.log10(rms * Math.SQRT2)).toBeCloseTo(-20, 1)
    }
  })

  it('opens no decoder for each of a thousand cuts, and none stays when it is left in the middle', async () => {
    const file = written('cut.wav', noise(60, 7, 1), 1)
    const cuts = Array.from({ length: 1_000 }, (_, n): [number, number] => [n * 60, n * 60 + 40])
    const mix = {
      mix: mixOf([pieceOf(1, cuts)]),
      files: filesOf({ 1: file }),
      sampleRateHz: rate,
      channels: 1 as const,
    }
    let most = 0
    let frames = 0
    for await (const part of framesOfMix(mix)) {
      frames += part.length
      if (frames > 20 * rate) break
      most = Math.max(most, running())
    }
    expect(most).toBe(1)
    expect(running()).toBe(0)
    expect((await all(framesOfMix(mix))).length).toBe(40 * rate)
  })

  it('fails where a file is none that can be decoded', async () => {
    const path = join(folder, 'none.wav')
    writeFileSync(path, 'no sound')
    const file = { path, junkBytes: 0, channels: 1, durationMs: 1_000 }
    await expect(render(mixOf([pieceOf(1, [[0, 1_000]])]), { 1: file }, 1)).rejects.toThrow('found no sound')
    expect(running()).toBe(0)
  })
})
