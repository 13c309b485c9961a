import { describe, expect, it } from 'vitest'
import { cleanNotes } from './clean'
import { plainNotes } from './plain'

describe('clean notes', () => {
  it('keep bold, italic, links and lists', () => {
    const notes =
      '<p><strong>One</strong> <em>two</em> <a href="https://lake.example/a?b=1&amp;c=2">three</a></p><ul><li>four</li></ul><ol><li>five</li></ol>'
    expect(cleanNotes(notes)).toBe(notes)
  })

  // OWASP XSS filter evasion cheat sheet: one of each kind that could reach a listening app.
  it.each([
    '<script>alert(1)</script>',
    '<img src=x onerror=alert(1)>',
    '<a href="javascript:alert(1)">x</a>',
    '<a href="jav&#x09;ascript:alert(1)">x</a>',
    '<a href=" &#14; javascript:alert(1)">x</a>',
    '<a href="data:text/html;base64,PHNjcmlwdD4=">x</a>',
    '<a href="//elsewhere.example">x</a>',
    '<p onmouseover="alert(1)" style="background:url(javascript:alert(1))">x</p>',
    '<svg/onload=alert(1)>',
    '<iframe src="javascript:alert(1)"></iframe>',
    '<math><mtext></p><script>alert(1)</script>',
    '<<script>alert(1)//<</script>',
    '<style>@import"https://elsewhere.example"</style>',
  ])('have no way to run anything: %s', attack => {
    expect(cleanNotes(attack)).not.toMatch(
      /script|alert|onerror|onload|onmouse|style=|href="(?!https?:|mailto:)|<(svg|math|iframe|img)/i,
    )
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
