import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cleanNotes } from './clean'
import { fieldsIn, fillNotes, noteFields, type NoteValues, templateFault } from './fill'

const values: NoteValues = {
  title: 'Wax & wood',
  hook: 'Why a morning smells',
  people: [
    { name: 'Tove Aldermoor', role: 'Host', address: null },
    { name: 'Sister Amabel', role: 'Guest', address: 'https://chapel.example/?a=1&b=2' },
    { name: 'Benno <b>', role: 'Guest', address: null },
  ],
  links: [{ words: 'The list', address: 'https://lake.example/list' }],
  chapters: [
    { fromMs: 0, title: 'The <kettle>' },
    { fromMs: 3_729_000, title: 'Letters' },
  ],
  show: { name: 'Bellows & Reeds', address: 'https://lake.example/bellows-and-reeds' },
}
const empty: NoteValues = { ...values, title: '', hook: '', people: [], links: [], chapters: [] }

describe('notes with fields', () => {
  it.each([
    ['<p>Hear {title}.</p>', '<p>Hear Wax &amp; wood.</p>'],
    [
      '<p>With {guests}.</p>',
      '<p>With <a href="https://chapel.example/?a=1&amp;b=2">Sister Amabel</a>, Benno &lt;b&gt;.</p>',
    ],
    [
      '<p>{guests}</p>',
      '<ul><li><a href="https://chapel.example/?a=1&amp;b=2">Sister Amabel</a></li><li>Benno &lt;b&gt;</li></ul>',
    ],
    ['<p>{chapters}</p>', '<ul><li>0:00 The &lt;kettle&gt;</li><li>1:02:09 Letters</li></ul>'],
    ['<p>{links}</p>', '<p><a href="https://lake.example/list">The list</a></p>'],
    [
      '<ul><li><p>{show link}</p></li></ul>',
      '<ul><li><a href="https://lake.example/bellows-and-reeds">Bellows &amp; Reeds</a></li></ul>',
    ],
    ['<p>{hook}</p><p>{unknown} stays</p>', '<p>Why a morning smells</p><p>{unknown} stays</p>'],
  ])('%s', (notes, filled) => expect(fillNotes(notes, values)).toBe(filled))

  it('lose a block whose only field has nothing to say', () =>
    expect(fillNotes('<p>Before</p><p>{guests}</p><p>{links}</p><p>{hook}</p>', empty)).toBe('<p>Before</p>'))

  it('are as clean as before, whatever stands in the values', () =>
    fc.assert(
      fc.property(fc.string(), fc.webUrl(), fc.constantFrom(...noteFields), (words, address, field) => {
        const hostile = {
          ...values,
          title: words,
          hook: words,
          people: [{ name: words || 'x', role: 'Guest' as const, address }],
          links: [{ words, address }],
        }
        const filled = fillNotes(`<p>a {${field}} b</p>`, hostile)
        // Cleaning drops links without words, and spells an apostrophe and a blank as they are.
        const spelt = (html: string): string =>
          html
            .replace(/<a [^>]*>\s*<\/a>/g, '')
            .replaceAll('&apos;', "'")
            .replaceAll('&nbsp;', '\u00a0')
            .trim()
        expect(spelt(cleanNotes(filled))).toBe(spelt(filled))
      }),
    ))

  it('tell which fields they name', () =>
    expect(fieldsIn('<p>{guests} {guests} {x} {show link}</p>')).toEqual(['guests', 'show link']))
})

it('a template with an unknown field is refused by its name', () => {
  expect(templateFault('<p>{guest}</p>')).toMatch(/^There is no field \{guest\}; there are \{title\}/)
  expect(templateFault('<p>{guests} {show link}</p>')).toBeNull()
})
