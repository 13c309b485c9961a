import type { ReadElement } from '../../xml/read'
import type { FeedAnswer, MetAddress, MetFeed } from '../met'

export type Weight = 'must mend' | 'worth mending' | 'good to know'

/** Where a maker mends something: a fact of the show, a part of an episode; `host` is whoever serves the feed or the file. */
export type Place =
  | `show.${'name' | 'description' | 'language' | 'category' | 'explicit' | 'artwork' | 'author' | 'ownerEmail' | 'type' | 'feedFacts'}`
  | `episode.${'title' | 'numbers' | 'kind' | 'hook' | 'notes' | 'audio' | 'moment' | 'artwork' | 'people' | 'transcript' | 'chapters' | 'extras'}`
  | 'host'

/** Something that a rule found: in an item, by its place in the feed, or in the feed itself. */
export interface Found {
  item: number | null
  /** What stands there; empty where nothing does. */
  value: string
}

/** One rule for feeds: what it says, where it comes from, how what breaks it is mended, and how that is found. */
export interface FeedRule {
  name: string
  weight: Weight
  /** What is so where it is broken. */
  says: string
  rule: string
  /** With its section; or common practice. */
  source: string
  ifItStays: string
  mend: string
  place: Place
  find(met: MetFeed): Found[]
}

export const practice = 'common practice, no source'

type Look<Of> = (of: Of, met: MetFeed, index: number) => string | null | undefined

/** Looks at the channel: what stands there that should not, or null where all is well. */
export const inChannel =
  (look: Look<ReadElement>): FeedRule['find'] =>
  met =>
    met.feed.channel ? foundIn(look(met.feed.channel, met, 0)) : []

/** Looks at each item. */
export const inItems =
  (look: Look<ReadElement>): FeedRule['find'] =>
  met =>
    met.feed.items.flatMap((item, index) => foundIn(look(item, met, index), index))

/** Looks at the elements of a name in each item. */
export const inEach =
  (name: string, look: Look<ReadElement>): FeedRule['find'] =>
  met =>
    met.feed.items.flatMap((item, index) =>
      item.children.flatMap(child => (child.name === name ? foundIn(look(child, met, index), index) : [])),
    )

/** Finds each item of which one before it has the same key; what has none is like no other. */
export const inRepeats =
  (keyOf: (item: ReadElement) => string | null, shown: (item: ReadElement) => string): FeedRule['find'] =>
  ({ feed: { items } }) => {
    const seen = new Set<string>()
    return items.flatMap((item, index) => {
      const key = keyOf(item)
      if (!key) return []
      if (seen.has(key)) return foundIn(shown(item), index)
      seen.add(key)
      return []
    })
  }

/** Looks at how the feed answered, where it was asked. */
export const inAnswer =
  (look: Look<FeedAnswer>): FeedRule['find'] =>
  met =>
    met.answer ? foundIn(look(met.answer, met, 0)) : []

/** Looks at what answered at the addresses that elements of items have in an attribute. */
export const atAddresses = (
  name: string,
  attribute: string,
  look: (met: MetAddress, element: ReadElement) => string | null,
): FeedRule['find'] =>
  inEach(name, (element, { answers }) => {
    const answered = answers.get(element.attributes[attribute]?.trim() ?? '')
    return answered ? look(answered, element) : null
  })

function foundIn(value: string | null | undefined, item: number | null = null): Found[] {
  return value === null || value === undefined ? [] : [{ item, value: value.slice(0, mostValue) }]
}
const mostValue = 300
