import type { MetFeed } from './met'
import { textIn } from './read'
import { feedRules } from './rules'
import { severities } from '../words/severity'
import type { FeedRule } from './rules/rule'

/** Where in a feed a finding is; null beside the feed itself. */
export interface FoundPlace {
  item: { index: number; title: string; guid: string } | null
  value: string
}

/** What a rule found in a feed: its words, and where. */
export interface FeedFinding extends Omit<FeedRule, 'find' | 'mendShow' | 'mendEpisode'> {
  count: number
  /** The first of them. */
  places: FoundPlace[]
}

const mostPlaces = 50
/** What can be said of a document that cannot be read to its end. */
const ofBroken = new Set(['well-formed', 'encoding', 'answers', 'content-type', 'secure-address', 'lasting-redirects'])

/** Checks a feed by every rule; what is found comes by its severity, the gravest first. */
export function checkFeed(met: MetFeed): FeedFinding[] {
  const isBroken = met.feed.document.fault !== null
  const findings = feedRules.flatMap(({ find, fixShow: _show, fixEpisode: _episode, ...words }) => {
    if (isBroken && !ofBroken.has(words.name)) return []
    const found = find(met)
    if (found.length === 0) return []
    const places = found
      .slice(0, mostPlaces)
      .map(({ item, value }) => ({ item: item === null ? null : itemAt(met, item), value }))
    return [{ ...words, count: found.length, places }]
  })
  return findings.sort((one, other) => severities.indexOf(one.severity) - severities.indexOf(other.severity))
}

function itemAt({ feed: { items } }: MetFeed, index: number) {
  const item = items[index]!
  return { index, title: textIn(item, 'title') || textIn(item, 'itunes:title'), guid: textIn(item, 'guid') }
}
