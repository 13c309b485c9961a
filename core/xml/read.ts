import { SaxesParser, type SaxesTagNS } from 'saxes'

/** An element as it was read, its name by the prefixes that `names` gives; unknown namespaces keep the prefix of the document. */
export interface ReadElement {
  name: string
  /** By their names as they stand. */
  attributes: Readonly<Record<string, string>>
  /** Its own text, that of elements in it left out. */
  text: string
  children: ReadElement[]
  /** The line on which it begins, the first being 1. */
  line: number
}

/** Why a text is no XML document, and where. */
export interface XmlFault {
  says: string
  line: number
  column: number
}

export interface ReadXml {
  root: ReadElement | null
  /** Null where the document is well-formed; else what was read up to there stands in `root`. */
  fault: XmlFault | null
  /** Whether it has a document type; what that declares is not followed. */
  hasDoctype: boolean
  /** The addresses of namespaces that it declares, by their prefixes. */
  namespaces: ReadonlyMap<string, string>
}

/** More elements than this are not read: of what a feed has, some 50,000 items. */
export const mostElements = 2_500_000
const deepest = 100

/**
 * Reads an XML 1.0 document with namespaces. `names` gives the prefix of each namespace that is known, in small letters.
 * Entities that a document declares are not resolved, nothing outside is fetched, and reading ends at the first fault, at an
 * element too many or too deep.
 */
export function readXml(text: string, names: Readonly<Record<string, string>>): ReadXml {
  const parser = new SaxesParser({ xmlns: true, position: true })
  const namespaces = new Map<string, string>()
  const open: ReadElement[] = []
  let root: ReadElement | null = null
  let count = 0
  let fault: XmlFault | null = null
  let hasDoctype = false
  /** Where the tag ends that was read last. */
  let tagEnd = 0
  const stop = (says: string): void => {
    fault ??= bareAmpersand(text, tagEnd, parser.position) ?? { says, line: parser.line, column: parser.column }
    throw new Stopped()
  }
  // The library puts "line:column: " before what it says.
  parser.on('error', error => stop(error.message.replace(/^\d+:\d+: /, '')))
  parser.on('doctype', () => {
    hasDoctype = true
  })
  parser.on('opentag', (tag: SaxesTagNS) => {
    tagEnd = parser.position
    if (++count > mostElements) stop(`It has more than ${mostElements.toLocaleString('en')} elements.`)
    if (open.length >= deepest) stop(`Its elements stand more than ${deepest} deep in each other.`)
    const attributes: Record<string, string> = {}
    for (const { name, value, prefix, local } of Object.values(tag.attributes)) {
      if (name === 'xmlns' || prefix === 'xmlns') namespaces.set(name === 'xmlns' ? '' : local, value)
      else attributes[name] = value
    }
    const element: ReadElement = { name: nameOf(tag, names), attributes, text: '', children: [], line: parser.line }
    if (open.length > 0) open.at(-1)!.children.push(element)
    else root = element
    open.push(element)
  })
  parser.on('text', words => {
    if (open.length > 0) open.at(-1)!.text += words
  })
  parser.on('cdata', words => {
    tagEnd = parser.position
    open.at(-1)!.text += words
  })
  parser.on('closetag', () => {
    tagEnd = parser.position
    open.pop()
  })
  try {
    parser.write(text).close()
  } catch (error) {
    if (!(error instanceof Stopped)) throw error
  }
  return { root, fault, hasDoctype, namespaces }
}

class Stopped extends Error {}

/**
 * An ampersand that begins no reference (XML 1.0, section 4.1) is met where the reference would have to end, which may be
 * lines further on; this is where it stands, null where all of them begin one.
 */
function bareAmpersand(text: string, from: number, to: number): XmlFault | null {
  const at = text.slice(from, to).search(/&(?!(?:#\d{1,10}|#x[\da-f]{1,8}|[a-z_:][\w:.-]{0,200});)/i)
  if (at < 0) return null
  const before = text.slice(0, from + at)
  return {
    says: 'an ampersand that begins no reference; it is written &amp;.',
    line: before.split('\n').length,
    column: before.length - before.lastIndexOf('\n'),
  }
}

function nameOf({ name, local, uri }: SaxesTagNS, names: Readonly<Record<string, string>>): string {
  if (uri === '') return local
  const prefix = names[uri.toLowerCase()]
  return prefix === undefined ? name : `${prefix}:${local}`
}
