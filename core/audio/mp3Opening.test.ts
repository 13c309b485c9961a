import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { headerAt, mp3Header } from './mp3Frame'
import { hasBitRate, mp3Opening } from './mp3Opening'
import { Mp3Scanner } from './mp3Scan'
import { decodedMs, makeSound } from './sound.fixture'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-opening-'))
afterAll(() => rmSync(folder, { recursive: true }))

it('the opening of an MP3 with a Xing header tells its length as it is heard', () => {
  const path = join(folder, 'a.mp3')
  const bytes = makeSound(path, 30, ['-q:a', '3', '-id3v2_version', '0'])
  const opening = mp3Opening(bytes.subarray(0, 8192))!
  expect(opening.durationMs).toBeCloseTo(decodedMs(path), 1)
  expect(opening.soundBytes).toBe(bytes.length - opening.fromBytes)
})

it('a VBRI header is read too, and is no sound', () => {
  const bytes = Buffer.from(
    makeSound(join(folder, 'b.mp3'), 4, ['-b:a', '128k', '-write_xing', '0', '-id3v2_version', '0']),
  )
  const frame = headerAt(bytes, 0)!
  const head = Buffer.from(bytes.subarray(0, frame.lengthBytes)).fill(0, 4)
  head.write('VBRI', 36)
  head.writeUInt32BE(99_999, 46)
  head.writeUInt32BE(777, 50)
  const whole = Buffer.concat([head, bytes])
  expect(mp3Header(whole, 0, headerAt(whole, 0)!)).toEqual({
    frames: 777,
    bytes: 99_999,
    delaySamples: 0,
    paddingSamples: 0,
  })
  const scanner = new Mp3Scanner()
  scanner.push(whole)
  const bare = new Mp3Scanner()
  bare.push(bytes)
  expect(scanner.finish()!.frames).toBe(bare.finish()!.frames)
})

it('pieces tell whether the bit rate is constant', () => {
  const constant = makeSound(join(folder, 'c.mp3'), 10, ['-b:a', '96k', '-write_xing', '0'])
  expect(hasBitRate(constant.subarray(40_000, 48_000), 96_000)).toBe(true)
  expect(hasBitRate(constant.subarray(40_000, 48_000), 128_000)).toBe(false)
  expect(hasBitRate(new Uint8Array(8000), 96_000)).toBe(false)
})

it('where a header announces nothing, the opening leaves the length open', () => {
  const bytes = makeSound(join(folder, 'd.mp3'), 3, ['-b:a', '64k', '-write_xing', '0', '-id3v2_version', '0'])
  expect(mp3Opening(bytes)).toMatchObject({ durationMs: null, bitRateBps: 64_000, fromBytes: 0 })
  expect(mp3Opening(Buffer.from('no sound at all, only words'))).toBeNull()
})
