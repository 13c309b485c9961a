import { xmlSafe } from './characters'

/** Markup of another kind, which stands in a document as it is: XML 1.0 section 2.7. */
export class Verbatim {
  constructor(readonly text: string) {}
}

/** An element that is written already, for the depth at which it stands. */
export class Ready {
  readonly text: string
  constructor(element: XmlElement, depth: number) {
    this.text = written(element, depth)
  }
}
/** What stands in an element: text, or elements; nothing where it is undefined. */
export type XmlContent = string | Verbatim | readonly (XmlElement | Ready | null)[] | undefined
/** An element to be written: its name, its attributes, its content. What is null among elements is left out. */
export interface XmlElement {
  name: string
  attributes: Readonly<Record<string, string | number | null>> | null
  content: XmlContent
}

export const element = (
  name: string,
  content: XmlContent,
  attributes: XmlElement['attributes'] = null,
): XmlElement => ({
  name,
  attributes,
  content,
})
/** An element with text in it; null, so left out, where there is no text. */
export const textElement = (name: string, text: string | number | null | undefined): XmlElement | null =>
  text === null || text === undefined || text === '' ? null : { name, attributes: null, content: String(text) }
/** An empty element that tells all by its attributes, of which those that are null are left out. */
export const marked = (name: string, attributes: XmlElement['attributes']): XmlElement => ({
  name,
  attributes,
  content: undefined,
})

/** Writes an element as XML 1.0, each element in it on a line of its own; characters that XML has no place for are left out. */
export const xmlOf = (root: XmlElement): string => written(root, 0).slice(1)

/** A document of it, in UTF-8. */
export const xmlDocument = (root: XmlElement): string => `<?xml version="1.0" encoding="UTF-8"?>${written(root, 0)}\n`

/** Pieces that are joined at the end: a text to which each is added at once would be thousands of texts for the collector. */
function written(element: XmlElement, depth: number): string {
  const pieces: string[] = []
  write(pieces, element, depth)
  return pieces.join('')
}

function write(pieces: string[], { name, attributes, content }: XmlElement, depth: number): void {
  const line = lineAt(depth)
  pieces.push(line, '<', name)
  if (attributes)
    for (const attribute in attributes) {
      const value = attributes[attribute]
      if (value !== null) pieces.push(' ', attribute, '="', escapedAttribute(String(value)), '"')
    }
  if (content === undefined) {
    pieces.push('/>')
    return
  }
  if (typeof content === 'string') pieces.push('>', escaped(content))
  // "]]>" ends such a section, so it is parted between two.
  else if (content instanceof Verbatim)
    pieces.push('><![CDATA[', xmlSafe(content.text).replaceAll(']]>', ']]]]><![CDATA[>'), ']]>')
  else {
    pieces.push('>')
    for (const child of content)
      if (child instanceof Ready) pieces.push(child.text)
      else if (child) write(pieces, child, depth + 1)
    pieces.push(line)
  }
  pieces.push('</', name, '>')
}

const lines: string[] = []
const lineAt = (depth: number): string => (lines[depth] ??= '\n' + ' '.repeat(depth))

/** Whatever is written otherwise somewhere, or must be looked at more closely; most texts have none of it. */
const special = /[\u0000-\u001f"&<>\ud800-\udfff\ufffe\uffff]/

// XML 1.0 section 2.4: & and < must be escaped in text, > where it ends "]]>"; section 3.3.3: in attributes, white space
// other than spaces would become spaces; section 2.11: a carriage return would become a line feed.
const escaped = (given: string): string => {
  if (!special.test(given)) return given
  const text = xmlSafe(given)
  return /[&<>\r]/.test(text)
    ? text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('\r', '&#13;')
    : text
}
const escapedAttribute = (given: string): string => {
  if (!special.test(given)) return given
  const text = escaped(given)
  return /["\t\n]/.test(text) ? text.replaceAll('"', '&quot;').replaceAll('\t', '&#9;').replaceAll('\n', '&#10;') : text
}
