import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { mp3Findings } from './findings'
import { findingWords } from './findingWords'
import { headerAt } from './mp3Frame'
import { type Mp3Scan, Mp3Scanner } from './mp3Scan'
import { sniff } from './sniff'
import { decodedMs, makeSound, probe } from './sound.fixture'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-mp3-'))
afterAll(() => rmSync(folder, { recursive: true }))

function scan(bytes: Uint8Array, chunkBytes = 65_536): Mp3Scan | null {
  const scanner = new Mp3Scanner()
  for (let at = 0; at < bytes.length; at += chunkBytes) scanner.push(bytes.subarray(at, at + chunkBytes))
  return scanner.finish()
}

const codings: [string, string[]][] = [
  ['constant 128 kbit/s stereo', ['-ac', '2', '-b:a', '128k']],
  ['variable bit rate', ['-q:a', '4']],
  ['variable bit rate without a Xing header', ['-q:a', '4', '-write_xing', '0']],
  ['22.05 kHz mono (MPEG-2)', ['-ar', '22050', '-b:a', '40k']],
  ['8 kHz mono (MPEG-2.5)', ['-ar', '8000', '-b:a', '16k']],
  ['with ID3v2.4 and ID3v1 tags', ['-id3v2_version', '4', '-write_id3v1', '1', '-metadata', 'title=Tagged']],
]

it('that a beginning is missing is told by the first frame, which goes on with what is not there', () => {
  const whole = makeSound(join(folder, 'whole.mp3'), 10, ['-b:a', '128k', '-id3v2_version', '0'])
  let at = 0
  for (let frames = 0; frames < 40; frames++) at += headerAt(whole, at)!.lengthBytes
  const found = scan(whole.subarray(at))!
  expect(found.lacksBeginning).toBe(true)
  expect(mp3Findings(found).map(({ code }) => code)).toEqual(['no-beginning'])
})

describe('the walk over an MP3', () => {
  // Reference: ffprobe counting packets. Its count takes the Xing frame for none, too.
  it.each(codings)('counts the frames that ffprobe counts: %s', (name, coding) => {
    const path = join(folder, `${name.replace(/\W/g, '')}.mp3`)
    const found = scan(makeSound(path, 7.3, coding))!
    const { packets } = probe(path)
    expect(found.frames).toBe(packets)
    expect([found.cutShort, found.lacksBeginning]).toEqual([false, false])
    expect(found.leadingJunkBytes + found.innerJunkBytes).toBe(0)
  })

  // Reference: the samples that ffmpeg decodes, which leaves the encoder's delay and padding out.
  it.each(['br-31', 'br-36', 'sf-5'])('tells the length of the demo’s %s as it is heard', name => {
    const path = join(import.meta.dirname, `../../demo/sounds/${name}.mp3`)
    expect(scan(readFileSync(path))!.durationMs).toBeCloseTo(decodedMs(path), 1)
    expect(scan(readFileSync(path))!.frames).toBe(probe(path).packets)
  })
  it.each([
    ['44100', '128k'],
    ['24000', '64k'],
    ['8000', '16k'],
  ])('tells the length at %s Hz as it is heard', (rate, bits) => {
    const path = join(folder, `heard-${rate}.mp3`)
    const found = scan(makeSound(path, 6.543, ['-ar', rate, '-b:a', bits]))!
    expect(found.durationMs).toBeCloseTo(decodedMs(path, Number(rate)), 1)
  })
  it('takes a Xing frame with a checksum for no sound, wherever its mark stands', () => {
    const bytes = makeSound(join(folder, 'crc.mp3'), 4, ['-b:a', '128k', '-id3v2_version', '0'])
    const found = scan(bytes)!
    // The protection bit is 0 where two bytes of checksum follow the header (ISO/IEC 11172-3 section 2.4.2.3).
    const unmoved = Buffer.from(bytes)
    unmoved[1]! &= 0xfe
    expect(scan(unmoved)).toMatchObject({ frames: found.frames, durationMs: found.durationMs })
  })
  it('takes an APE tag without a header for no junk', () => {
    const bytes = makeSound(join(folder, 'ape.mp3'), 4, ['-b:a', '128k', '-write_xing', '0', '-id3v2_version', '0'])
    const items = Buffer.alloc(90_000, 'a cover picture ')
    const footer = Buffer.alloc(32)
    footer.write('APETAGEX')
    footer.writeUInt32LE(2000, 8)
    footer.writeUInt32LE(items.length + 32, 12)
    footer.writeUInt32LE(1, 16)
    const found = scan(Buffer.concat([bytes, items, footer]))!
    expect(found.trailingJunkBytes).toBe(0)
    expect(mp3Findings(found)).toEqual([])
  })

  it('finds the same in chunks of any size', () => {
    const bytes = makeSound(join(folder, 'chunks.mp3'), 3, ['-q:a', '2'])
    const whole = scan(bytes, bytes.length)
    for (const chunk of [1, 7, 1000, 4096]) expect(scan(bytes, chunk)).toEqual(whole)
  })

  it('tells that a file is cut short, in the middle of a frame and against its own header', () => {
    const bytes = makeSound(join(folder, 'cut.mp3'), 20, ['-b:a', '128k'])
    const found = scan(bytes.subarray(0, bytes.length / 2))!
    expect(found.cutShort).toBe(true)
    expect(found.durationMs).toBeCloseTo(10_000, -3)
    expect(mp3Findings(found).map(({ code }) => code)).toEqual(['cut-short'])
    expect(findingWords(mp3Findings(found)[0]!).says).toContain('announces 0:20, it holds 0:10')
  })

  it('finds the sound behind 2 MB of junk, and says how much junk there is', () => {
    const sound = makeSound(join(folder, 'junk.mp3'), 5, ['-b:a', '64k', '-id3v2_version', '0'])
    const junk = Buffer.alloc(2_000_000, 'not a frame\xff\xfb')
    const found = scan(Buffer.concat([junk, sound]))!
    expect(found.frames).toBe(scan(sound)!.frames)
    expect(found.leadingJunkBytes).toBe(2_000_000)
    expect(mp3Findings(found)[0]).toMatchObject({ code: 'junk-before', figures: { bytes: 2_000_000 } })
    expect(findingWords(mp3Findings(found)[0]!).says).toContain('2.0 MB')
    expect(sniff(Buffer.concat([junk, sound]))).toBe('mp3')
  })

  it('goes on behind junk in the midst', () => {
    const sound = makeSound(join(folder, 'mid.mp3'), 6, ['-b:a', '64k', '-write_xing', '0', '-id3v2_version', '0'])
    const frameBytes = headerAt(sound, 0)!.lengthBytes
    const cut = Math.floor(sound.length / 2 / frameBytes) * frameBytes
    const found = scan(Buffer.concat([sound.subarray(0, cut), Buffer.alloc(9000, 1), sound.subarray(cut)]))!
    expect(found.innerJunkBytes).toBeGreaterThanOrEqual(9000)
    expect(found.frames).toBeGreaterThan(scan(sound)!.frames - 4)
  })

  it('finds nothing in text, silence of zeros, or nothing', () => {
    for (const bytes of [Buffer.from('words '.repeat(5000)), Buffer.alloc(100_000), Buffer.alloc(0)])
      expect(scan(bytes)).toBeNull()
  })
})

describe('the kind of a file', () => {
  it('is told by content, never by name', () => {
    writeFileSync(join(folder, 'text.mp3'), 'Dear listeners, this is a letter.\n'.repeat(100))
    expect(sniff(readFileSync(join(folder, 'text.mp3')))).toBe('text')
    expect(sniff(Buffer.alloc(0))).toBe('empty')
    expect(sniff(makeSound(join(folder, 'a.m4a'), 1, ['-c:a', 'aac']))).toBe('m4a')
    expect(sniff(makeSound(join(folder, 'a.wav'), 1, []))).toBe('wav')
    expect(sniff(makeSound(join(folder, 'a.flac'), 1, []))).toBe('flac')
    expect(sniff(makeSound(join(folder, 'a.ogg'), 1, ['-c:a', 'libvorbis']))).toBe('ogg')
    expect(sniff(Buffer.from(Array.from({ length: 5000 }, (_, i) => (i * 7919) % 251)))).toBe('unknown')
  })
})
