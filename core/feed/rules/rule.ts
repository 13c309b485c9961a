import type { Severity } from '../../words/severity'
import type { EpisodeText } from '../../episode/fields'
import type { ReadElement } from '../../xml/read'
import type { FeedFacts } from '../facts'
import type { FeedAnswer, MetAddress, MetFeed } from '../met'

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

/** What a press changes of a show, and how the button says it. */
export interface ShowFix {
  says: string
  facts: Partial<FeedFacts>
}

/** What of an episode is mended by a press. */
export type FixableText = Pick<EpisodeText, 'title' | 'number' | 'season' | 'kind'>
export type Numbered = Pick<EpisodeText, 'number' | 'season' | 'kind'>
/** The show's other episodes. */
export interface Others {
  all: readonly Numbered[]
  /** Those that went out before this one. */
  before: readonly Numbered[]
}

/** What a press changes of an episode, and how the button says it. */
export interface EpisodeFix {
  says: string
  text: Partial<EpisodeText>
}

/** One rule for feeds: what it says, where it comes from, how what breaks it is mended, and how that is found. */
export interface FeedRule {
  name: string
  severity: Severity
  /** What is so where it is broken. */
  says: string
  rule: string
  /** With its section; or common practice. */
  source: string
  ifItStays: string
  fix: string
  place: Place
  find(met: MetFeed): Found[]
  /** How it is mended in a show of the house, where nobody has to find words for that. */
  fixShow?(facts: FeedFacts): ShowFix
  /** The same in an episode; null where it cannot be told. */
  fixEpisode?(text: FixableText, others: Others): EpisodeFix | null
}

export const practice = 'common practice, no source'

/** Whether two are counted together: of a season and a kind. */
export const isBeside = (one: Numbered, other: Numbered): boolean =>
  one.season === other.season && one.kind === other.kind

/** The number behind all that others have which are counted together with it. */
export const nextNumber = (text: Numbered, others: readonly Numbered[]): number =>
  1 + Math.max(0, ...others.flatMap(other => (isBeside(text, other) ? (other.number ?? 0) : [])))

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

/** Finds each item of which an older one, which stands behind it, has the same key; what has none is like no other. */
export const inRepeats =
  (keyOf: (item: ReadElement) => string | null, shown: (item: ReadElement) => string): FeedRule['find'] =>
  ({ feed: { items } }) => {
    const seen = new Set<string>()
    return items
      .toReversed()
      .flatMap((item, behind) => {
        const key = keyOf(item)
        if (!key) return []
        if (seen.has(key)) return foundIn(shown(item), items.length - 1 - behind)
        seen.add(key)
        return []
      })
      .toReversed()
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
