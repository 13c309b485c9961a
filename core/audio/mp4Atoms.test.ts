import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterAll, describe, expect, it } from 'vitest'
import { atomHead, atomsIn, MoovFinder, soundInMoov } from './mp4Atoms'
import { makeSound, probe } from './sound.fixture'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-atoms-'))
afterAll(() => rmSync(folder, { recursive: true }))

function atom(type: string, content: Buffer): Buffer {
  const head = Buffer.alloc(8)
  head.writeUInt32BE(content.length + 8)
  head.write(type, 4)
  return Buffer.concat([head, content])
}

// ISO/IEC 14496-12 section 4.2: 32 bits of size and four letters; a size of 1 is followed by one of 64 bits.
describe('an atom', () => {
  it('tells its type and length', () => {
    expect(atomHead(atom('free', Buffer.alloc(20)), 0)).toEqual({ type: 'free', headBytes: 8, lengthBytes: 28 })
  })
  it('over 4 GB has its length behind its type', () => {
    const head = Buffer.alloc(16)
    head.writeUInt32BE(1)
    head.write('mdat', 4)
    head.writeBigUInt64BE(5_000_000_000n, 8)
    expect(atomHead(head, 0)).toEqual({ type: 'mdat', headBytes: 16, lengthBytes: 5_000_000_000 })
    expect(atomHead(head.subarray(0, 12), 0)).toBeNull()
  })
  it('cut off or of an impossible length ends the list', () => {
    const two = Buffer.concat([atom('free', Buffer.alloc(4)), atom('skip', Buffer.alloc(4))])
    expect(atomsIn(two, 0, two.length).map(({ type }) => type)).toEqual(['free', 'skip'])
    expect(atomsIn(two, 0, two.length - 1).map(({ type }) => type)).toEqual(['free'])
    expect(atomsIn(Buffer.alloc(40), 0, 40)).toEqual([])
  })
})

describe('the index of an M4A', () => {
  it.each([
    [44_100, 1],
    [48_000, 2],
    [22_050, 2],
  ])('tells the sound as ffprobe does: %i Hz, %i channels', (sampleRateHz, channels) => {
    const path = join(folder, `${sampleRateHz}.m4a`)
    const bytes = makeSound(path, 7, ['-ar', String(sampleRateHz), '-ac', String(channels), '-c:a', 'aac'])
    const moov = atomsIn(bytes, 0, bytes.length).find(({ type }) => type === 'moov')!
    const sound = soundInMoov(bytes.subarray(moov.from, moov.to))!
    expect(sound).toMatchObject({ sampleRateHz, channels, codec: 'mp4a' })
    // Within one frame of 1024 samples.
    expect(Math.abs(sound.durationMs - probe(path).durationMs)).toBeLessThan((1024 / sampleRateHz) * 1000)
  })
  it('without sound is none', () => {
    expect(soundInMoov(new Uint8Array(0))).toBeNull()
    expect(soundInMoov(atom('trak', atom('mdia', Buffer.alloc(0))))).toBeNull()
  })
})

describe('the index in a file that comes in piece by piece', () => {
  const bytes = (faststart: boolean): Buffer =>
    makeSound(join(folder, `stream-${faststart}.m4a`), 7, [
      '-c:a',
      'aac',
      ...(faststart ? ['-movflags', '+faststart'] : []),
    ])
  const found = (whole: Buffer, piece: number): { moov: Uint8Array | null; read: number } => {
    const finder = new MoovFinder()
    let read = 0
    for (let at = 0, more = true; more && at < whole.length; at += piece) {
      more = finder.push(whole.subarray(at, at + piece))
      read = at + piece
    }
    return { moov: finder.moov, read }
  }

  it.each([
    [true, 7],
    [true, 65_536],
    [false, 13],
    [false, 65_536],
  ])('is the one in the whole (at the front: %s, pieces of %i bytes)', (faststart, piece) => {
    const whole = bytes(faststart)
    const at = atomsIn(whole, 0, whole.length).find(({ type }) => type === 'moov')!
    expect(Buffer.from(found(whole, piece).moov!).equals(whole.subarray(at.from, at.to))).toBe(true)
  })
  it('is given up after a few atoms, and where it is too large', () => {
    const many = Buffer.concat(Array.from({ length: 5000 }, () => atom('free', Buffer.alloc(0))))
    expect(found(many, 4096)).toEqual({ moov: null, read: 4096 })
    const huge = Buffer.alloc(16)
    huge.writeUInt32BE(900_000_000)
    huge.write('moov', 4)
    expect(found(Buffer.concat([huge, Buffer.alloc(100_000)]), 4096)).toEqual({ moov: null, read: 4096 })
  })
  const fast = bytes(true)
  it('of any bytes at all ends, and is a sound or none', () =>
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), noise => {
        const at = atomsIn(fast, 0, fast.length).find(({ type }) => type === 'moov')!
        const moov = Buffer.from(fast.subarray(at.from, at.to))
        noise.forEach((byte, index) => {
          if (index % 3 === 0) moov[(index * 7919 + byte) % moov.length] = byte
        })
        const sound = soundInMoov(moov)
        expect(sound === null || (Number.isFinite(sound.durationMs) && sound.durationMs > 0)).toBe(true)
      }),
      { numRuns: 300 },
    ))
})
