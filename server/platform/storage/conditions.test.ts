import { describe, expect, it } from 'vitest'
import { precondition, rangeHolds } from './conditions'
import { readRange } from './range'

const validators = { etag: '"letter"', lastModified: new Date('2026-03-10T05:00:00.700Z') }
const same = 'Tue, 10 Mar 2026 05:00:00 GMT'
const earlier = 'Mon, 09 Mar 2026 05:00:00 GMT'
const later = 'Wed, 11 Mar 2026 05:00:00 GMT'

// RFC 9110 section 13.2.2, the order in which preconditions are evaluated, row by row.
describe('preconditions', () => {
  it.each([
    ['none', {}, 'pass'],
    ['If-Match with the tag', { 'if-match': '"letter"' }, 'pass'],
    ['If-Match with a list that has the tag', { 'if-match': '"a", "letter"' }, 'pass'],
    ['If-Match *', { 'if-match': '*' }, 'pass'],
    ['If-Match with another tag', { 'if-match': '"a"' }, 412],
    ['If-Match weak: the comparison is strong', { 'if-match': 'W/"letter"' }, 412],
    [
      'If-Match before If-Unmodified-Since, which is then ignored',
      { 'if-match': '"letter"', 'if-unmodified-since': earlier },
      'pass',
    ],
    ['If-Unmodified-Since the same second', { 'if-unmodified-since': same }, 'pass'],
    ['If-Unmodified-Since before the change', { 'if-unmodified-since': earlier }, 412],
    ['If-Unmodified-Since unreadable: ignored', { 'if-unmodified-since': 'spring' }, 'pass'],
    ['If-None-Match with the tag', { 'if-none-match': '"letter"' }, 304],
    ['If-None-Match weak: the comparison is weak', { 'if-none-match': 'W/"letter"' }, 304],
    ['If-None-Match with a list without the tag', { 'if-none-match': '"a", "b"' }, 'pass'],
    ['If-None-Match *', { 'if-none-match': ' * ' }, 304],
    ['If-None-Match without quotes is no tag', { 'if-none-match': 'letter' }, 'pass'],
    [
      'If-None-Match before If-Modified-Since, which is then ignored',
      { 'if-none-match': '"a"', 'if-modified-since': later },
      'pass',
    ],
    ['If-Modified-Since the same second', { 'if-modified-since': same }, 304],
    ['If-Modified-Since after the change', { 'if-modified-since': later }, 304],
    ['If-Modified-Since before the change', { 'if-modified-since': earlier }, 'pass'],
    ['If-Modified-Since unreadable: ignored', { 'if-modified-since': '' }, 'pass'],
    ['If-Match fails before If-None-Match is looked at', { 'if-match': '"a"', 'if-none-match': '"letter"' }, 412],
  ])('%s', (_name, headers, outcome) =>
    expect(precondition(headers as Record<string, string>, validators)).toBe(outcome),
  )
})

// Section 13.1.5: If-Range is compared strongly, a date to the second and exactly.
describe('If-Range', () => {
  it.each([
    ['missing', undefined, true],
    ['the tag', '"letter"', true],
    ['the tag, weak', 'W/"letter"', false],
    ['another tag', '"a"', false],
    ['the very date', same, true],
    ['a later date', later, false],
    ['an earlier date', earlier, false],
  ])('%s', (_name, value, holds) => expect(rangeHolds({ 'if-range': value }, validators)).toBe(holds))
})

// Section 14.1.2, with its own examples for a representation of 10000 bytes.
describe('a byte range of 10000 bytes', () => {
  it.each([
    ['bytes=0-499', { start: 0, end: 499 }],
    ['bytes=500-999', { start: 500, end: 999 }],
    ['bytes=-500', { start: 9500, end: 9999 }],
    ['bytes=9500-', { start: 9500, end: 9999 }],
    ['bytes=0-0', { start: 0, end: 0 }],
    ['bytes=-1', { start: 9999, end: 9999 }],
    ['bytes=9999-20000', { start: 9999, end: 9999 }],
    ['bytes=-20000', { start: 0, end: 9999 }],
    ['Bytes=1-2', { start: 1, end: 2 }],
    ['bytes=10000-', 'unsatisfiable'],
    ['bytes=-0', 'unsatisfiable'],
    ['bytes=500-400', null],
    ['bytes=-', null],
    ['bytes=', null],
    ['bytes=a-b', null],
    ['bytes=0-0,-1', null],
    ['items=0-1', null],
    ['bytes=1.5-2', null],
    ['bytes=--5', null],
  ])('%s', (header, outcome) => expect(readRange(header, 10_000)).toEqual(outcome))

  it('always lies within the file, whatever is asked', () => {
    for (let first = 0; first < 40; first++) {
      for (let last = 0; last < 40; last++) {
        const range = readRange(`bytes=${first}-${last}`, 20)
        if (range === null || range === 'unsatisfiable') continue
        expect(range.start).toBeGreaterThanOrEqual(0)
        expect(range.end).toBeLessThan(20)
        expect(range.start).toBeLessThanOrEqual(range.end)
      }
    }
  })
})
