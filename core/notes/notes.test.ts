import { Fragment, Mark, type Node } from '@tiptap/pm/model'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cleanNotes } from './clean'
import { evasions } from './evasion.fixture'
import { pastedNotes } from './pasted'
import { plainNotes } from './plain'
import { notesSchema } from './schema'
import { notesHtml } from './spelling'

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
    expect(cleanNotes('<h2>Head</h2><table><tr><td>cell</td></tr></table>')).toBe('<h3>Head</h3><p>cell</p>')
  })

  it('keep the words of a tag they do not know', () =>
    expect(cleanNotes('<p><blink>hello</blink></p>')).toBe('<p>hello</p>'))
  it('stay as they are when cleaned again', () => {
    const once = cleanNotes('<div>a<br>b &lt;c&gt; <a href="https://x.example">d</a><p>')
    expect(cleanNotes(once)).toBe(once)
  })
})

describe('notes have one spelling', () => {
  it.each([
    [
      '<p>With:</p>\n<ul>\n  <li><p>a letter</p></li>\n  <li>a stamp</li>\n</ul>',
      '<p>With:</p><ul><li>a letter</li><li>a stamp</li></ul>',
    ],
    ['loose <b>words</b><p>and</p>', '<p>loose <strong>words</strong></p><p>and</p>'],
    ['<p>one</p><p></p><p> </p><h2> </h2><p>two</p>', '<p>one</p><p>two</p>'],
    ['<p><em><strong>a</strong></em><strong>b</strong></p>', '<p><strong><em>a</em>b</strong></p>'],
    [
      '<ul><li>a<ul><li>b</li></ul></li><li><p>c</p><p>d</p></li></ul>',
      '<ul><li>a<ul><li>b</li></ul></li><li><p>c</p><p>d</p></li></ul>',
    ],
    ['<p>a\n  b  c<br/>d </p>', '<p>a b  c<br>d </p>'],
    [
      '<p>Hi <a>a</a> & <a href="https://lake.example/?a=1&b=%22">b</a></p>',
      '<p>Hi a &amp; <a href="https://lake.example/?a=1&amp;b=%22">b</a></p>',
    ],
    ['<p> </p>', ''],
    ['<ul><li>a</li><ul><li>b</li></ul></ul>', '<ul><li>a<ul><li>b</li></ul></li></ul>'],
    [`<p>${'a<br>'.repeat(150)}</p>`, `<p>${'a<br>'.repeat(150)}</p>`],
  ])('%s', (given, spelt) => expect(cleanNotes(given)).toBe(spelt))

  it('whatever is written in the editor is kept as it is written there', () => {
    const { nodes, marks } = notesSchema
    const mark = fc.subarray([
      marks.bold!.create(),
      marks.italic!.create(),
      marks.link!.create({ href: 'https://lake.example/?a&b' }),
    ])
    const words = fc.stringMatching(/^[ \u00a0]{0,2}[a-z&<>"é\u05d0]{1,5}[ ]{0,2}$/)
    const text = fc.tuple(words, mark).map(([said, set]) => notesSchema.text(said, Mark.setFrom(set)))
    const inline = fc.array(fc.oneof({ weight: 5, arbitrary: text }, fc.constant(nodes.hardBreak!.create())), {
      minLength: 1,
      maxLength: 5,
    })
    const block = (type: string) => inline.map(inside => nodes[type]!.create(null, Fragment.fromArray(inside)))
    const { list } = fc.letrec<{ list: Node; item: Node }>(tie => ({
      item: fc
        .tuple(
          block('paragraph'),
          fc.array(fc.oneof({ depthSize: 'small' }, block('paragraph'), tie('list')), { maxLength: 2 }),
        )
        .map(([first, others]) => nodes.listItem!.create(null, [first, ...others])),
      list: fc
        .tuple(fc.constantFrom('bulletList', 'orderedList'), fc.array(tie('item'), { minLength: 1, maxLength: 3 }))
        .map(([type, items]) => nodes[type]!.create(null, items)),
    }))
    const blocks = fc.array(fc.oneof(block('paragraph'), block('heading'), list), { minLength: 1, maxLength: 5 })
    fc.assert(
      fc.property(blocks, inside => {
        const written = notesHtml(notesSchema.topNodeType.createChecked(null, inside))
        expect(cleanNotes(written)).toBe(written)
      }),
    )
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
