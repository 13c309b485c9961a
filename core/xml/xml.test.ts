import { execFileSync } from 'node:child_process'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readXml } from './read'
import { element, marked, Ready, textElement, Verbatim, xmlDocument } from './write'

/** As XML keeps it: lone surrogates and control characters have no place (XML 1.0 section 2.2). */
const kept = (text: string): string =>
  [...text].filter(sign => !/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Cs}/u.test(sign)).join('')

const anyText = fc.string({
  unit: fc.oneof(
    fc.string({ unit: 'binary', minLength: 1, maxLength: 1 }),
    fc.constantFrom('<', '&', '>', ']', '"', '\r', '\n', '\t', '🪗', '\ud800', '\u0007'),
  ),
})

describe('an ampersand that begins no reference', () => {
  it.each([
    ['<a>\n<b>Tom & Co\nmore\n\n</b></a>', 2, 8],
    ['<a>\n<b>AT&T rocks</b>\n\n<c>x;y</c>\n</a>', 2, 6],
    ['<a><b>1 &amp; 2</b>\n<b>3 &amp; 4 & 5\n</b>\n</a>', 2, 14],
    ['<a>\n<b t="x & y\nz"/></a>', 2, 9],
    ['<a><![CDATA[x & y]]>\n<b>x & y</b>\n</a>', 2, 6],
  ])('in %j is told where it stands', (text, line, column) => {
    expect(readXml(text, {}).fault).toEqual({ says: expect.stringContaining('&amp;'), line, column })
  })
  it('is not blamed for another fault', () => {
    expect(readXml('<a><b>1 &amp; 2<![CDATA[ & ]]></b>', {}).fault!.says).toMatch(/unclosed/)
    expect(readXml('<a><b>&nbsp;</b></a>', {}).fault!.says).toMatch(/undefined entity/)
  })
})

describe('writing XML', () => {
  it('is read back letter by letter, whatever stands in it', () =>
    fc.assert(
      fc.property(anyText, anyText, anyText, (text, value, markup) => {
        const document = xmlDocument(
          element('r', [element('t', text), marked('a', { v: value }), element('m', new Verbatim(markup)), null]),
        )
        const { root, fault } = readXml(document, {})
        expect(fault).toBeNull()
        const [t, a, m] = root!.children
        expect([t!.text, a!.attributes.v]).toEqual([kept(text), kept(value)])
        // XML 1.0 section 2.11: line ends of a verbatim part become line feeds.
        expect(m!.text).toBe(kept(markup).replace(/\r\n?/g, '\n'))
      }),
    ))

  it('is well-formed for xmllint with every character that a text can hold', () => {
    const all =
      Array.from({ length: 0x3000 }, (_, code) => String.fromCharCode(code)).join('') + '\ud83e\ude97 ]]> \udc00'
    const document = xmlDocument(
      element('r', [element('t', all), marked('a', { v: all }), element('m', new Verbatim(all))]),
    )
    expect(execFileSync('xmllint', ['--noout', '-'], { input: document, encoding: 'utf8' })).toBe('')
  })

  it('leaves out what has nothing to say, and takes what was written before as it is', () => {
    expect(textElement('a', null)).toBeNull()
    expect(textElement('a', '')).toBeNull()
    const inner = element('b', [textElement('c', 0)])
    expect(xmlDocument(element('a', [new Ready(inner, 1)]))).toBe(xmlDocument(element('a', [inner])))
    expect(marked('a', { b: null }).attributes).toEqual({ b: null })
    expect(xmlDocument(marked('a', { b: null, c: 1 }))).toContain('<a c="1"/>')
  })
})
