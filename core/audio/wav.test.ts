import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { probe } from './sound.fixture'
import { tones } from './tones.fixture'
import { pcm24, wavHead } from './wav'
import { announcedWavMs } from './wavEnd'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-wav-'))
afterAll(() => rmSync(folder, { recursive: true }))

it('what is written as WAV is what ffmpeg reads, to half a step of 24 bits; over full scale it is cut off', () => {
  const sound = tones([{ seconds: 0.5, dbfs: -0.1, hz: 997 }], 48_000, 2)
  sound.set([1, -1, 1.5, -1.5, Number.EPSILON, 0.5])
  const bytes = pcm24(sound)
  const head = wavHead({ sampleRateHz: 48_000, channels: 2, bitsPerSample: 24 }, bytes.length)
  const path = join(folder, 'tone.wav')
  writeFileSync(path, Buffer.concat([head, bytes]))
  expect(probe(path).durationMs).toBe(500)
  expect(announcedWavMs(head)).toBe(500)
  const read = execFileSync('ffmpeg', ['-v', 'error', '-i', path, '-f', 'f32le', '-'])
  const samples = new Float32Array(read.buffer, read.byteOffset, read.length / 4)
  expect(samples).toHaveLength(sound.length)
  const most = 1 - 2 ** -23
  for (const [i, value] of sound.entries())
    expect(Math.abs(samples[i]! - Math.max(-1, Math.min(most, value)))).toBeLessThanOrEqual(2 ** -24)
})

it('a stream that has not ended names no length, and ffmpeg reads it all the same', () => {
  const bytes = pcm24(tones([{ seconds: 0.2, dbfs: -20 }], 44_100, 1))
  const head = wavHead({ sampleRateHz: 44_100, channels: 1, bitsPerSample: 24 }, null)
  expect(announcedWavMs(head)).toBeNull()
  const read = execFileSync('ffmpeg', ['-v', 'error', '-i', 'pipe:0', '-f', 's16le', '-'], {
    input: Buffer.concat([head, bytes]),
    stdio: ['pipe', 'pipe', 'ignore'],
  })
  expect(read.length / 2).toBe(8_820)
})
