import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { makeSound } from './sound.fixture'
import { isOggCutShort } from './oggEnd'
import { announcedWavMs } from './wavEnd'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-ends-'))
afterAll(() => rmSync(folder, { recursive: true }))

// Reference: files that ffmpeg makes, of a length that is asked for.
it.each([
  ['44100', '1'],
  ['48000', '2'],
  ['8000', '1'],
])('a WAV at %s Hz with %s channels says how long it is', (rate, channels) => {
  const bytes = makeSound(join(folder, 'a.wav'), 3, ['-ar', rate, '-ac', channels])
  expect(announcedWavMs(bytes.subarray(0, 4096))).toBeCloseTo(3000, 0)
})
it('a byte rate that is wrong says nothing, and samples without a size of their own say no length', () => {
  const bytes = Buffer.from(makeSound(join(folder, 'r.wav'), 3, ['-ar', '44100', '-ac', '2']))
  bytes.writeUInt32LE(44_100, bytes.indexOf('fmt ') + 16)
  expect(announcedWavMs(bytes.subarray(0, 4096))).toBeCloseTo(3000, 0)
  const packed = makeSound(join(folder, 'p.wav'), 3, ['-c:a', 'adpcm_ima_wav'])
  expect(announcedWavMs(packed.subarray(0, 4096))).toBeNull()
})
it('one that was written into a pipe does not say', () => {
  const bytes = Buffer.from(makeSound(join(folder, 'b.wav'), 1, []))
  bytes.writeUInt32LE(0xffffffff, bytes.indexOf('data') + 4)
  expect(announcedWavMs(bytes)).toBeNull()
  expect(announcedWavMs(new Uint8Array(40))).toBeNull()
  expect(announcedWavMs(Buffer.from('RIFF\0\0\0\0WAVEdata\x05\0\0\0'))).toBeNull()
})
it('an Ogg tells its end by its last page', () => {
  const bytes = makeSound(join(folder, 'c.ogg'), 20, ['-c:a', 'libvorbis'])
  expect(isOggCutShort(bytes.subarray(-66_000))).toBe(false)
  for (const share of [0.3, 0.5, 0.99])
    expect(isOggCutShort(bytes.subarray(0, Math.round(bytes.length * share)).subarray(-66_000)), String(share)).toBe(
      true,
    )
  expect(isOggCutShort(new Uint8Array(100))).toBe(true)
})
