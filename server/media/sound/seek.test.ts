import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FileSource } from './decoder'
import { decode, decodingFrom, mp3PlacesOf } from './seek'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-seek-'))
afterAll(() => rmSync(folder, { recursive: true }))

const seconds = 12
beforeAll(() => {
  const sound = `anoisesrc=d=${seconds}:c=pink:r=44100:a=0.4:seed=7`
  execFileSync('ffmpeg', ['-v', 'error', '-f', 'lavfi', '-i', sound, '-ac', '2', join(folder, 'noise.wav')])
})

/** The noise, encoded. */
function made(name: string, parameters: readonly string[]): string {
  const path = join(folder, name)
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', join(folder, 'noise.wav'), ...parameters, path])
  return path
}
const decodedWhole = ({ path, sampleRateHz, channels }: FileSource): Int16Array =>
  new Int16Array(
    new Uint8Array(
      execFileSync(
        'ffmpeg',
        [
          '-v',
          'error',
          '-i',
          path,
          '-map',
          '0:a:0',
          '-ac',
          String(channels),
          '-ar',
          String(sampleRateHz),
          '-f',
          's16le',
          '-',
        ],
        { maxBuffer: 1e9 },
      ),
    ).buffer,
  )
async function decodedFrom(source: FileSource, fromFrame: number, isMp3: boolean): Promise<Int16Array> {
  const parts: Buffer[] = []
  const stream = decode(decodingFrom(source, fromFrame, isMp3 ? await mp3PlacesOf(source.path) : null))
  for await (const part of stream) parts.push(part as Buffer)
  return new Int16Array(new Uint8Array(Buffer.concat(parts)).buffer)
}

const kinds: readonly [name: string, channels: 1 | 2, parameters: readonly string[]][] = [
  ['constant.mp3', 2, ['-b:a', '128k']],
  ['reservoir.mp3', 1, ['-b:a', '48k', '-ac', '1']],
  ['variable.mp3', 2, ['-q:a', '4']],
  ['noHeader.mp3', 2, ['-q:a', '4', '-write_xing', '0', '-id3v2_version', '0']],
  ['low.mp3', 1, ['-b:a', '32k', '-ar', '16000', '-ac', '1']],
  // What stands for noise in AAC is other noise each time it is decoded.
  ['sound.m4a', 2, ['-aac_pns', '0']],
  ['sound.flac', 2, []],
  ['sound.ogg', 1, ['-c:a', 'libvorbis', '-ac', '1']],
  ['sound.opus', 2, ['-c:a', 'libopus']],
  ['sound.wav', 2, []],
]

describe('a file that is decoded from somewhere', () => {
  it.each(kinds)('%s is what it is from its beginning, to the last bit but one', async (name, channels, parameters) => {
    const path = made(name, parameters)
    const source: FileSource = { path, junkBytes: 0, sampleRateHz: 48_000, channels }
    const whole = decodedWhole(source)
    for (const fromFrame of [1, 3 * 48_000, 450_007]) {
      const part = await decodedFrom(source, fromFrame, name.endsWith('.mp3'))
      const rest = whole.subarray(fromFrame * channels)
      // What an encoder filled its last frames with may come, too.
      expect(part.length, `from ${fromFrame}`).toBeGreaterThanOrEqual(rest.length - 2 * channels)
      const length = rest.length - 50 * channels
      const furthest = part
        .subarray(0, length)
        .reduce((most, value, n) => Math.max(most, Math.abs(value - rest[n]!)), 0)
      expect(furthest, `from ${fromFrame}`).toBeLessThanOrEqual(name.endsWith('.opus') ? 3 : 1)
    }
  })

  it('begins behind bytes that are no sound, and is empty behind its end', async () => {
    const plain = made('plain.mp3', ['-b:a', '64k', '-write_xing', '0', '-id3v2_version', '0'])
    const path = join(folder, 'junk.mp3')
    writeFileSync(path, Buffer.concat([Buffer.alloc(3_000, 0x41), readFileSync(plain)]))
    const to = { sampleRateHz: 44_100, channels: 2 } as const
    const whole = decodedWhole({ path: plain, junkBytes: 0, ...to })
    const source: FileSource = { path, junkBytes: 3_000, ...to }
    for (const fromFrame of [0, 300_000]) {
      const part = await decodedFrom(source, fromFrame, true)
      expect([...part.subarray(0, 1_000)]).toEqual([...whole.subarray(fromFrame * 2, fromFrame * 2 + 1_000)])
    }
    expect((await decodedFrom(source, 3_000 * 44_100, true)).length).toBe(0)
  })
})
