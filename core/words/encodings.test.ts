import { spawnSync } from 'node:child_process'
import { expect, it } from 'vitest'
import { wordsOf } from '../transcript/bytes'
import { feedText } from '../feed/bytes'
import { decoderOf } from './encodings'

/** Encodings of one byte of the WHATWG Encoding standard (section 4.2), by their names there and, where it is another, in iconv. */
const ofOneByte: [string, string?][] = [
  ['ibm866'],
  ...[2, 3, 4, 5, 6, 7, 8, 10, 13, 14, 15, 16].map((part): [string] => [`iso-8859-${part}`]),
  ['koi8-r'],
  ['koi8-u'],
  ['macintosh'],
  ['windows-874', 'CP874'],
  ...[1250, 1251, 1252, 1253, 1254, 1255, 1256, 1257, 1258].map((page): [string] => [`windows-${page}`]),
  ['x-mac-cyrillic', 'MAC-CYRILLIC'],
  ['latin1', 'windows-1252'],
  ['us-ascii', 'windows-1252'],
  ['iso-8859-1', 'windows-1252'],
]
/** Where the standard has another sign than iconv, which has older tables. */
const others: Readonly<Record<string, readonly number[]>> = {
  macintosh: [0xc6, 0xdb, 0xf0],
  'x-mac-cyrillic': [0xa2, 0xb6, 0xff],
}

it.each(ofOneByte)('%s is read as iconv reads it, byte by byte', (label, name = label) => {
  // What is no sign there, iconv leaves out; here it becomes U+FFFD, or the control that has its number.
  const lines = Uint8Array.from({ length: 256 }, (_, at) => (at % 2 === 0 ? at / 2 + 128 : 10))
  const theirs = spawnSync('iconv', ['-c', '-f', name.toUpperCase(), '-t', 'UTF-8'], { input: lines })
    .stdout.toString()
    .split('\n')
  expect(theirs.length).toBeGreaterThan(128)
  const differing = theirs.slice(0, 128).flatMap((sign, at) => {
    const ours = decoderOf(label)!.decode(Uint8Array.of(at + 128))
    return sign === '' || sign === ours || others[label]?.includes(at + 128) ? [] : [`${at + 128}: ${ours} for ${sign}`]
  })
  expect(differing).toEqual([])
})

it('quotation marks, dashes, the ellipsis and the euro of an older program are read, in transcripts and in feeds', () => {
  const bytes = Uint8Array.of(0x93, 0x41, 0x94, 0x96, 0x97, 0x85, 0x80, 0x92, 0xe9)
  const words = '“A”–—…€’é'
  expect(wordsOf(bytes)).toBe(words)
  expect(feedText(bytes, 'text/xml; charset=windows-1252')).toEqual({ text: words, fault: null })
  expect(feedText(bytes, 'text/xml; charset=ISO-8859-1').text).toBe(words)
  expect(feedText(bytes, 'text/xml').text).toContain('\ufffd')
})

it('a label that nobody knows is told', () => {
  expect(decoderOf('klingon')).toBeNull()
  expect(feedText(Uint8Array.of(65), 'text/xml; charset=klingon').fault).toContain('klingon')
})
