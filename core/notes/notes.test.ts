import { describe, expect, it } from 'vitest'
import { cleanNotes } from './clean'
import { evasions } from './evasion.fixture'
import { pastedNotes } from './pasted'
import { plainNotes } from './plain'

describe('clean notes', () => {
  it('keep bold, italic, links and lists', () => {
    const notes =
      '<p><strong>One</strong> <em>two</em> <a href="https://lake.example/a?b=1&amp;c=2">three</a></p><ul><li>four</li></ul><ol><li>five</li></ol>'
    expect(cleanNotes(notes)).toBe(notes)
  })

  it.each(evasions)('have no way to run anything: %s', attack => {
    for (const notes of [cleanNotes(attack), cleanNotes(pastedNotes(attack))]) {
      const tags = [...notes.matchAll(/<[^>]*>/g)].map(([tag]) => tag)
      for (const tag of tags)
        expect(tag).toMatch(/^<(\/?(p|h3|br ?\/?|strong|em|ul|ol|li|a)|a href="(https?:|mailto:)[^"]*")>$/)
    }
  })

  it('close what was left open, and turn foreign blocks into paragraphs', () => {
    expect(cleanNotes('<div><b>bold <i>both')).toBe('<p><strong>bold <em>both</em></strong></p>')
    expect(cleanNotes('<h2>Head</h2><table><tr><td>cell</td></tr></table>')).toBe('<h3>Head</h3>cell')
  })

  it('keep the words of a tag they do not know', () =>
    expect(cleanNotes('<p><blink>hello</blink></p>')).toBe('<p>hello</p>'))
  it('stay as they are when cleaned again', () => {
    const once = cleanNotes('<div>a<br>b &lt;c&gt; <a href="https://x.example">d</a><p>')
    expect(cleanNotes(once)).toBe(once)
  })
})

describe('notes as plain text', () => {
  it('have a line for each block, and addresses behind their links', () => {
    expect(
      plainNotes(
        '<p>Look <a href="https://lake.example">here</a> &amp; there.</p><ul><li><p>one</p></li><li>two</li></ul><p>End</p>',
      ),
    ).toBe('Look here (https://lake.example) & there.\n– one\n– two\n\nEnd')
  })
  it('have a line for a heading', () =>
    expect(plainNotes('<h3>What to try</h3><p>Lift it.</p>')).toBe('What to try\n\nLift it.'))
  it('do not say an address twice', () => {
    expect(plainNotes('<p><a href="https://lake.example">https://lake.example</a></p>')).toBe('https://lake.example')
    expect(plainNotes('<p><a href="mailto:a@lake.example">a@lake.example</a></p>')).toBe('a@lake.example')
  })
})
