import { decodeHTML } from 'entities'
import fc from 'fast-check'
import { Parser } from 'htmlparser2'
import { describe, expect, it } from 'vitest'
import { utf8Bytes } from '../words/line'
import { itemDescription, safeInBothReadings } from './description'

/** What a reader shows that takes it for HTML. */
function asHtml(text: string): string {
  let shown = ''
  const parser = new Parser(
    {
      ontext(words) {
        shown += words
      },
    },
    { decodeEntities: true },
  )
  parser.end(text)
  return shown
}

describe('a description', () => {
  it.each([
    ['Bellows & Reeds', 'Bellows & Reeds'],
    ['2 < 3, and a <b> c', '2 < 3, and a &lt;b> c'],
    ['&amp; is spelled &copy too', '&amp;amp; is spelled &amp;copy too'],
    ['https://lake.example/?a=1&b=2', 'https://lake.example/?a=1&b=2'],
    ['https://lake.example/?a=1&copy=2', 'https://lake.example/?a=1&amp;copy=2'],
  ])('of %s stands as %s', (words, written) => expect(safeInBothReadings(words)).toBe(written))

  // Reference: htmlparser2, a parser of HTML.
  it('shows every word to readers of HTML', () =>
    fc.assert(
      fc.property(
        fc
          .array(
            fc.constantFrom(
              '<',
              '>',
              '&',
              ';',
              '#',
              'amp',
              'copy',
              'lt',
              'b',
              '/',
              '!',
              ' ',
              'x',
              '39',
              '\n',
              '🪗',
              'ä',
            ),
            { maxLength: 40 },
          )
          .map(parts => parts.join('')),
        words => {
          expect(asHtml(safeInBothReadings(words))).toBe(words)
        },
      ),
      { numRuns: 2000 },
    ))

  it('is cut at 4,000 bytes, between letters, with an ellipsis', () => {
    for (const words of ['👩‍👩‍👧‍👦'.repeat(400), '<b'.repeat(3000), 'ä'.repeat(4000), `${'x'.repeat(3996)}&&&&&&`]) {
      const cut = itemDescription(words)
      expect(utf8Bytes(cut)).toBeLessThanOrEqual(4000)
      expect(cut.endsWith('…')).toBe(true)
      expect(words.startsWith(decodeHTML(cut.slice(0, -1)))).toBe(true)
    }
    expect(itemDescription('👩‍👩‍👧‍👦'.repeat(400)).length % '👩‍👩‍👧‍👦'.length).toBe(1)
    expect(itemDescription('x'.repeat(4000))).toBe('x'.repeat(4000))
  })
})
