import { xmlSafe } from './characters'

/** Markup of another kind, which stands in a document as it is: XML 1.0 section 2.7. */
export class Verbatim {
  constructor(readonly text: string) {}
}

/** An element that is written already, for the depth at which it stands. */
export class Ready {
  readonly text: string
  constructor(element: XmlElement, depth: number) {
    this.text = written(element, '\n' + ' '.repeat(depth))
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
export const told = (name: string, text: string | number | null | undefined): XmlElement | null =>
  text === null || text === undefined || text === '' ? null : { name, attributes: null, content: String(text) }
/** An empty element that tells all by its attributes, of which those that are null are left out. */
export const marked = (name: string, attributes: XmlElement['attributes']): XmlElement => ({
  name,
  attributes,
  content: undefined,
})

/** Writes an element as XML 1.0, each element in it on a line of its own; characters that XML has no place for are left out. */
export const xmlOf = (root: XmlElement): string => written(root, '\n').slice(1)

/** A document of it, in UTF-8. */
export const xmlDocument = (root: XmlElement): string => `<?xml version="1.0" encoding="UTF-8"?>\n${xmlOf(root)}\n`

function written({ name, attributes, content }: XmlElement, indent: string): string {
  let text = `${indent}<${name}`
  if (attributes)
    for (const attribute in attributes) {
      const value = attributes[attribute]
      if (value !== null) text += ` ${attribute}="${escapedAttribute(String(value))}"`
    }
  if (content === undefined) return `${text}/>`
  if (typeof content === 'string') return `${text}>${escaped(content)}</${name}>`
  // "]]>" ends such a section, so it is parted between two.
  if (content instanceof Verbatim)
    return `${text}><![CDATA[${xmlSafe(content.text).replaceAll(']]>', ']]]]><![CDATA[>')}]]></${name}>`
  text += '>'
  for (const child of content) if (child) text += child instanceof Ready ? child.text : written(child, `${indent} `)
  return `${text}${indent}</${name}>`
}

// XML 1.0 section 2.4: & and < must be escaped in text, > where it ends "]]>"; section 3.3.3: in attributes, white space
// other than spaces would become spaces; section 2.11: a carriage return would become a line feed.
const escaped = (given: string): string => {
  const text = xmlSafe(given)
  return /[&<>\r]/.test(text)
    ? text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('\r', '&#13;')
    : text
}
const escapedAttribute = (given: string): string => {
  const text = escaped(given)
  return /["\t\n]/.test(text) ? text.replaceAll('"', '&quot;').replaceAll('\t', '&#9;').replaceAll('\n', '&#10;') : text
}
