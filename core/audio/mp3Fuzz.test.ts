import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { headerAt } from './mp3Frame'
import { Mp3Scanner } from './mp3Scan'
import { sniff } from './sniff'

/** A small generator with a seed, so that a failing case can be run again. */
function dice(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) >>> 0
    return state / 2 ** 32
  }
}

const sound = readFileSync(join(import.meta.dirname, '../../demo/sounds/sf-5.mp3'))

function walk(bytes: Uint8Array) {
  const scanner = new Mp3Scanner()
  for (let at = 0; at < bytes.length; at += 10_000) scanner.push(bytes.subarray(at, at + 10_000))
  return scanner.finish()
}

describe('a damaged MP3', () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    'is walked to its end, and never found longer than it was: damage %i',
    seed => {
      const roll = dice(seed)
      const bytes = Uint8Array.from(sound.subarray(0, 60_000 + Math.floor(roll() * 200_000)))
      for (let n = 0; n < 1 + roll() * 60; n++) bytes[Math.floor(roll() * bytes.length)] = Math.floor(roll() * 256)
      const found = walk(bytes)
      expect(sniff(bytes.subarray(0, 50_000))).toBe('mp3')
      expect(found!.durationMs).toBeLessThanOrEqual(walk(sound)!.durationMs)
      expect(found!.durationMs).toBeGreaterThan(0)
      expect(Number.isFinite(found!.bitRateBps)).toBe(true)
    },
  )

  it('of noise alone has no frames, whatever its seed', () => {
    for (let seed = 0; seed < 20; seed++) {
      const roll = dice(seed + 1000)
      expect(walk(Uint8Array.from({ length: 40_000 }, () => Math.floor(roll() * 256)))?.frames ?? 0).toBeLessThan(5)
    }
  })
})

// ISO/IEC 11172-3 section 2.4.2.3 and table of bit rates, from memory: length = 144 × bit rate / sample rate, + 1 when padded.
describe('a frame header', () => {
  it.each([
    [
      [0xff, 0xfb, 0x90, 0x00],
      { lengthBytes: 417, samples: 1152, sampleRateHz: 44_100, bitRateBps: 128_000, channels: 2 },
    ],
    [
      [0xff, 0xfb, 0x92, 0x00],
      { lengthBytes: 418, samples: 1152, sampleRateHz: 44_100, bitRateBps: 128_000, channels: 2 },
    ],
    [
      [0xff, 0xfb, 0xe4, 0xc0],
      { lengthBytes: 960, samples: 1152, sampleRateHz: 48_000, bitRateBps: 320_000, channels: 1 },
    ],
    [
      [0xff, 0xf3, 0x80, 0xc0],
      { lengthBytes: 208, samples: 576, sampleRateHz: 22_050, bitRateBps: 64_000, channels: 1 },
    ],
    [[0xff, 0xe3, 0x18, 0xc0], { lengthBytes: 72, samples: 576, sampleRateHz: 8_000, bitRateBps: 8_000, channels: 1 }],
  ])('%j', (bytes, facts) => expect(headerAt(Uint8Array.from(bytes), 0)).toMatchObject(facts))

  it.each([
    ['of layer II', [0xff, 0xfd, 0x90, 0x00]],
    ['of a forbidden bit rate', [0xff, 0xfb, 0xf0, 0x00]],
    ['of a free bit rate', [0xff, 0xfb, 0x00, 0x00]],
    ['of a reserved sample rate', [0xff, 0xfb, 0x9c, 0x00]],
    ['of a reserved version', [0xff, 0xeb, 0x90, 0x00]],
    ['cut off', [0xff, 0xfb, 0x90]],
  ])('%s is none', (_name, bytes) => expect(headerAt(Uint8Array.from(bytes), 0)).toBeNull())
})
