import { type ReadElement, readXml, type ReadXml } from '../xml/read'
import { namespaces } from './xml'

/** A feed of anybody's, as it was read. */
export interface ReadFeed {
  document: ReadXml
  channel: ReadElement | null
  items: readonly ReadElement[]
}

/** Namespaces by their addresses, as rules name their elements; some are written in more than one way. */
const prefixes: Readonly<Record<string, string>> = {
  ...Object.fromEntries(Object.entries(namespaces).map(([prefix, uri]) => [uri.toLowerCase(), prefix])),
  'https://github.com/podcastindex-org/podcast-namespace/blob/main/docs/1.0.md': 'podcast',
}

/** Reads RSS 2.0 in whatever state it is. */
export function readFeed(text: string): ReadFeed {
  const document = readXml(text, prefixes)
  const channel = document.root?.name === 'rss' ? (one(document.root, 'channel') ?? null) : null
  return { document, channel, items: channel ? all(channel, 'item') : [] }
}

/** The first element of a name in another; undefined where there is none. */
export const one = (within: ReadElement, name: string): ReadElement | undefined =>
  within.children.find(child => child.name === name)

export const all = (within: ReadElement, name: string): ReadElement[] =>
  within.children.filter(child => child.name === name)

/** The text of the first element of a name, without space at its ends; empty where there is none. */
export const textIn = (within: ReadElement, name: string): string => one(within, name)?.text.trim() ?? ''

/** An attribute of the first element of a name; empty where there is none. */
export const attributeIn = (within: ReadElement, name: string, attribute: string): string =>
  one(within, name)?.attributes[attribute]?.trim() ?? ''
