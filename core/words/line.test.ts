import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cut, isBlank, oneLine, utf8Bytes } from './line'
import { writingDirection } from './writingDirection'

describe('a line', () => {
  it.each([
    ['One\nTwo', 'One Two'],
    ['One\r\nTwo', 'One Two'],
    ['a\u2028b', 'a b'],
    ['\u0000\u0007x\u009f', 'x'],
    ['👩‍👩‍👧', '👩‍👩‍👧'],
    [' a ', ' a '],
  ])('of %j is %j', (words, line) => expect(oneLine(words)).toBe(line))
  it.each(['', '   ', '\u200b\u200d', '\u0001', '\u202e'])('%j is blank', words => expect(isBlank(words)).toBe(true))
  it.each(['a', '.', '🪗'])('%j is not', words => expect(isBlank(words)).toBe(false))
})

// Reference: Intl.Segmenter, and the standard's own rule that well-formed text has no halves of letters.
it('a cut text is the beginning of the whole, no longer than allowed, without half a letter', () =>
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), fc.integer({ min: 0, max: 80 }), (text, most) => {
      const short = cut(text, most)
      expect(text.startsWith(short)).toBe(true)
      expect(short.length).toBeLessThanOrEqual(most)
      expect(short.isWellFormed()).toBe(true)
      expect(utf8Bytes(cut(text, most, utf8Bytes))).toBeLessThanOrEqual(most)
      if (text.length <= most) expect(short).toBe(text)
    }),
  ))

describe('the direction of a language', () => {
  it.each(['ar', 'he', 'fa-IR', 'ur', 'yi', 'ckb', 'dv', 'az-Arab'])('%s is written right to left', language =>
    expect(writingDirection(language)).toBe('rtl'),
  )
  it.each(['en', 'de', 'ja', 'az', 'pa', 'x'])('%s is not', language => expect(writingDirection(language)).toBe('ltr'))
})
