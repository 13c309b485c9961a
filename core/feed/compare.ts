import { plainNotes } from '../notes/plain'
import type { ReadElement } from '../xml/read'
import { type ReadFeed, textIn } from './read'

/** One thing that two states of a feed tell differently. */
export interface Difference {
  /** As it is called in a sentence. */
  what: string
  how: 'added' | 'changed' | 'removed'
  /** What stood there and what stands there now, where that is a few words; null for what is no text. */
  earlier: string | null
  later: string | null
}

/** An episode as a comparison names it. */
export interface ComparedItem {
  guid: string
  title: string
  number: string
  differences: Difference[]
}

export interface FeedComparison {
  show: Difference[]
  added: ComparedItem[]
  removed: ComparedItem[]
  changed: ComparedItem[]
  /** Those of `added` that were there before under another GUID, so that apps take them for new. */
  renewed: ComparedItem[]
  /** How the items that are in both come in another order. */
  isReordered: boolean
}

/** What elements tell, each thing once though it stands in several; null for what changes by itself or says nothing more. */
const ofChannel: Readonly<Record<string, string | null>> = {
  item: null,
  lastBuildDate: null,
  pubDate: null,
  generator: null,
  'podcast:trailer': null,
  title: 'name',
  link: 'site',
  description: 'description',
  'itunes:summary': 'description',
  language: 'language',
  managingEditor: 'owner',
  'itunes:owner': 'owner',
  'podcast:locked': 'lock',
  'itunes:author': 'author',
  'dc:creator': 'author',
  image: 'artwork',
  'itunes:image': 'artwork',
  // The same picture in sizes that come when they are drawn.
  'podcast:images': null,
  category: 'category',
  'itunes:category': 'category',
  'itunes:explicit': 'explicit',
  'itunes:type': 'order',
  'itunes:keywords': 'keywords',
  'itunes:block': 'the wish not to be listed',
  'itunes:complete': 'end of the show',
  'itunes:new-feed-url': 'new address',
  'atom:link': 'addresses of the feed',
  'podcast:guid': 'GUID of the show',
  'podcast:person': 'people',
  'podcast:funding': 'ways to give',
  'podcast:license': 'licence',
  'podcast:location': 'place',
  'podcast:txt': 'statements',
  'podcast:podroll': 'recommended shows',
  'podcast:updateFrequency': 'rhythm',
  'podcast:medium': 'medium',
  webMaster: 'webmaster',
}
const ofItem: Readonly<Record<string, string | null>> = {
  guid: null,
  title: 'title',
  'itunes:title': 'title',
  link: 'page',
  pubDate: 'date',
  enclosure: 'audio',
  'podcast:alternateEnclosure': 'audio',
  'itunes:duration': 'audio',
  description: 'notes',
  'content:encoded': 'notes',
  'itunes:subtitle': 'hook',
  'itunes:summary': 'hook',
  category: 'tags',
  'itunes:keywords': 'tags',
  'itunes:author': 'author',
  'dc:creator': 'author',
  'itunes:image': 'artwork',
  'itunes:episode': 'number',
  'podcast:episode': 'number',
  'itunes:season': 'season',
  'podcast:season': 'season',
  'itunes:episodeType': 'kind',
  'itunes:explicit': 'explicit',
  'podcast:person': 'people',
  'podcast:chapters': 'chapters',
  'podcast:transcript': 'transcript',
  'podcast:soundbite': 'soundbites',
  'podcast:license': 'licence',
  'podcast:location': 'place',
  'podcast:socialInteract': 'discussion',
  comments: 'discussion',
}

/** Compares two states of a feed by what they mean: which episodes came, went, changed and in what, and what is said of the show. */
export function compareFeeds(earlier: ReadFeed, later: ReadFeed): FeedComparison {
  const [before, now] = [byGuid(earlier), byGuid(later)]
  const added = [...now].flatMap(([guid, item]) => (before.has(guid) ? [] : [named(item)]))
  const removed = [...before].flatMap(([guid, item]) => (now.has(guid) ? [] : [named(item)]))
  const changed = [...now].flatMap(([guid, item]) => {
    const known = before.get(guid)
    const differences = known ? differencesOf(told(known, ofItem), told(item, ofItem)) : []
    return differences.length > 0 ? [{ ...named(item), differences }] : []
  })
  const gone = new Set([...before].flatMap(([guid, item]) => (now.has(guid) ? [] : [sameness(item)])))
  const order = (one: Map<string, unknown>, other: Map<string, unknown>): string =>
    [...one.keys()].filter(guid => other.has(guid)).join('\n')
  return {
    show:
      earlier.channel && later.channel
        ? differencesOf(told(earlier.channel, ofChannel), told(later.channel, ofChannel))
        : [],
    added,
    removed,
    changed,
    renewed: added.filter(({ guid }) => gone.has(sameness(now.get(guid)!))),
    isReordered: order(before, now) !== order(now, before),
  }
}

const byGuid = ({ items }: ReadFeed): Map<string, ReadElement> =>
  new Map(items.map(item => [textIn(item, 'guid') || textIn(item, 'link') || textIn(item, 'title'), item]))

const named = (item: ReadElement): ComparedItem => ({
  guid: textIn(item, 'guid'),
  title: textIn(item, 'itunes:title') || textIn(item, 'title'),
  number: textIn(item, 'itunes:episode'),
  differences: [],
})

/** By what an episode is known again that has another GUID. */
const sameness = (item: ReadElement): string =>
  item.children.find(({ name }) => name === 'enclosure')?.attributes.url ?? textIn(item, 'title')

/** What is told, by what it is: all of it to compare, and its first text to show. */
function told(within: ReadElement, known: Readonly<Record<string, string | null>>) {
  const things = new Map<string, { whole: string; shown: string | null }>()
  for (const child of within.children) {
    const what = child.name in known ? known[child.name] : child.name
    if (what === null || what === undefined) continue
    const before = things.get(what)
    // Beside the picture, its title and link say no more than the show's do.
    const telling = child.name === 'image' ? (child.children.find(({ name }) => name === 'url') ?? child) : child
    things.set(what, {
      whole: (before?.whole ?? '') + spelled(telling),
      shown: before?.shown ?? shownOf(child),
    })
  }
  return things
}

/** Spelt once for the whole: a text within a text within a text would have its quotation marks escaped again at each level. */
const spelled = (element: ReadElement): string => JSON.stringify(tree(element))
const tree = ({ name, attributes, text, children }: ReadElement): unknown[] => [
  name,
  attributes,
  text.trim(),
  children.map(tree),
]

const mostShown = 2_000
function shownOf({ name, text }: ReadElement): string | null {
  const words = name === 'content:encoded' ? plainNotes(text) : text.trim()
  return words === '' ? null : words.slice(0, mostShown)
}

function differencesOf(earlier: ReturnType<typeof told>, later: ReturnType<typeof told>): Difference[] {
  return [...new Set([...later.keys(), ...earlier.keys()])].flatMap(what => {
    const [before, now] = [earlier.get(what), later.get(what)]
    if (before?.whole === now?.whole) return []
    const how = before ? (now ? 'changed' : 'removed') : 'added'
    return [{ what, how, earlier: before?.shown ?? null, later: now?.shown ?? null }]
  })
}

export const isSameFeed = ({ show, added, removed, changed, isReordered }: FeedComparison): boolean =>
  show.length + added.length + removed.length + changed.length === 0 && !isReordered

const [came, went] = ['New: ', 'Taken out: ']
/** Whether there is more to compare, by what a comparison says, than what came and went. */
export const isMoreThanComing = (words: readonly string[]): boolean =>
  words.some(each => !each.startsWith(came) && !each.startsWith(went))

/** What is said of a state that has none before it. */
export const firstStateWords = 'The feed as it began.'

const list = new Intl.ListFormat('en-GB')
const mostNamed = 5

/** An episode in a sentence: by its number, or its title. */
export const itemName = ({ number, title }: Pick<ComparedItem, 'number' | 'title'>): string =>
  number ? `episode ${number}` : `“${title}”`

/** A comparison in sentences, the first about what apps make of it: `Episode 7: notes changed; artwork added.` */
export function comparisonWords(comparison: FeedComparison): string[] {
  const { show, added, removed, changed, renewed, isReordered } = comparison
  if (isSameFeed(comparison)) return ['Nothing that listeners would notice.']
  const fresh = added.filter(each => !renewed.includes(each))
  return [
    ...(fresh.length > 0 ? [`${came}${namesOf(fresh)}.`] : []),
    ...(removed.length > renewed.length
      ? [`${went}${namesOf(removed.slice(0, removed.length - renewed.length))}.`]
      : []),
    ...(renewed.length > 0 ? [`Apps show ${namesOf(renewed)} as new, since the GUID is another.`] : []),
    ...changed.slice(0, mostNamed).map(each => `${capital(itemName(each))}: ${differenceWords(each.differences)}.`),
    ...(changed.length > mostNamed ? [`${changed.length - mostNamed} more episodes changed.`] : []),
    ...(show.length > 0 ? [`Show: ${differenceWords(show)}.`] : []),
    ...(isReordered ? ['The episodes come in another order.'] : []),
    ...(changed.length > 0
      ? [`Apps will not show ${changed.length === 1 ? itemName(changed[0]!) : 'them'} as new.`]
      : []),
  ]
}

const namesOf = (items: readonly ComparedItem[]): string =>
  list.format([
    ...items.slice(0, mostNamed).map(itemName),
    ...(items.length > mostNamed ? [`${items.length - mostNamed} more`] : []),
  ])
const differenceWords = (differences: readonly Difference[]): string =>
  differences.map(({ what, how }) => `${what} ${how}`).join('; ')
const capital = (words: string): string => words.slice(0, 1).toUpperCase() + words.slice(1)
