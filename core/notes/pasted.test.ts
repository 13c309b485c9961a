import { describe, expect, it } from 'vitest'
import { cleanNotes } from './clean'
import { pastedNotes } from './pasted'

/** As word processors and browsers put it on the clipboard (from memory of the shapes they use; the words are ours). */
const samples: [string, string, string][] = [
  [
    'a word processor of the desk: conditional comments, styles, lists as paragraphs',
    `<html xmlns:o="urn:schemas-microsoft-com:office:office"><head><style><!-- p.MsoNormal {margin:0cm} --></style></head><body lang=EN-GB><!--StartFragment-->
    <p class=MsoNormal><b><span style='font-size:14.0pt'>A reed</span></b><span> that <i>buzzes</i> is <a href="https://lake.example/dirt">mostly dirty</a>.<o:p></o:p></span></p>
    <p class=MsoListParagraphCxSpFirst style='mso-list:l0 level1 lfo1'><![if !supportLists]><span style='mso-list:Ignore'>·<span style='font:7.0pt "Times New Roman"'>&nbsp;&nbsp;&nbsp; </span></span><![endif]>Take it out<o:p></o:p></p>
    <p class=MsoListParagraphCxSpLast style='mso-list:l0 level1 lfo1'><![if !supportLists]><span style='mso-list:Ignore'>·<span>&nbsp;&nbsp; </span></span><![endif]>Brush it</p>
    <!--EndFragment--></body></html>`,
    '<p><strong>A reed</strong> that <em>buzzes</em> is <a href="https://lake.example/dirt">mostly dirty</a>.</p><ul><li>Take it out</li><li>Brush it</li></ul>',
  ],
  [
    'a word processor in the browser: everything in a bold that is not bold, spans with styles',
    `<meta charset='utf-8'><b style="font-weight:normal;" id="docs-internal-guid-1"><h2 dir="ltr" style="line-height:1.38"><span style="font-size:16pt">What to try</span></h2><p dir="ltr"><span style="font-weight:700">First</span><span style="font-weight:400"> the </span><span style="font-style:italic">pallet</span><span>.</span></p><ol><li dir="ltr"><p dir="ltr" role="presentation"><span>Lift it</span></p></li><li dir="ltr"><p dir="ltr"><span>Look</span></p></li></ol></b>`,
    '<h3>What to try</h3><p><strong>First</strong> the <em>pallet</em>.</p><ol><li>Lift it</li><li>Look</li></ol>',
  ],
  [
    'an office suite: fonts, line breaks, an empty paragraph',
    `<!DOCTYPE HTML><html><head><title></title><style type="text/css">p { line-height: 115% }</style></head><body lang="en-GB"><p style="margin-bottom: 0cm"><font face="Serif"><b>Four parts</b> beeswax,<br/>one part rosin.</font></p><p><br/></p><ul><li><p>Melt</p><li><p>Wait</p></ul></body></html>`,
    '<p><strong>Four parts</strong> beeswax,<br>one part rosin.</p><ul><li>Melt</li><li>Wait</li></ul>',
  ],
  [
    'a web page: scripts, pictures, tables, buttons, its own headings',
    `<article><h1>The ferry bell</h1><script>track()</script><img src="https://lake.example/b.jpg" onerror="x()"><p>It rings <strong>an A</strong>, <span onclick="y()">more or less</span>.</p><table><tr><td>six</td><td>o’clock</td></tr></table><button>Share</button><a href="javascript:x()">no link</a></article>`,
    '<h3>The ferry bell</h3><p>It rings <strong>an A</strong>, more or less.</p><p>six o’clock</p><p>no link</p>',
  ],
  ['plain words', 'Nothing but words', '<p>Nothing but words</p>'],
  ['nothing', '<p> &nbsp; </p><div></div>', ''],
]

describe('what is pasted', () => {
  it.each(samples)('from %s', (_name, html, notes) => expect(pastedNotes(html)).toBe(notes))

  it.each(samples)('from %s is clean', (_name, html) => {
    const notes = pastedNotes(html)
    expect(cleanNotes(notes).replaceAll('<br />', '<br>')).toBe(notes)
  })

  it('keeps right-to-left text and signs that nobody sees', () =>
    expect(pastedNotes('<p dir="rtl">שלום\u200f a\u200db</p>')).toBe('<p>שלום\u200f a\u200db</p>'))

  it('closes what was left open, and copes with what is out of turn', () =>
    expect(pastedNotes('<ul><li>one<li><b>two</ul></b></p><p>three')).toBe(
      '<ul><li>one</li><li><strong>two</strong></li></ul><p>three</p>',
    ))

  it('of 5 MB of foreign markup takes the words', () => {
    const foreign = `<p class=MsoNormal style='mso-fareast-language:EN-US;${'mso-x:y;'.repeat(600)}'><o:p></o:p><span lang=EN>word</span></p>`
    const html = foreign.repeat(Math.ceil(5_000_000 / foreign.length))
    expect(html.length).toBeGreaterThan(5_000_000)
    const notes = pastedNotes(html)
    expect(notes.startsWith('<p>word</p><p>word</p>')).toBe(true)
    expect(notes.length).toBeLessThan(20_000)
  })
})
