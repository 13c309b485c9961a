import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { atomHead, atomsIn, soundInMoov } from './mp4Atoms'
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
  it.each([[44_100, 1], [48_000, 2], [22_050, 2]])('tells the sound as ffprobe does: %i Hz, %i channels', (sampleRateHz, channels) => {
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
