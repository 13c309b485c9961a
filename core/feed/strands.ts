import { tagKey } from '../tags/tags'
import type { FeedItem } from './model'

/** By what episodes are in a strand: chosen one by one, or by what is said of them. */
export const strandWays = ['hand', 'season', 'tag', 'kind'] as const
export type StrandWay = (typeof strandWays)[number]

export interface StrandRule {
  goesBy: StrandWay
  /** The season's number, the tag, the kind; null where they are chosen by hand. */
  value: string | null
}

/** The address of a strand's feed, by that of the show's. */
export const strandAddress = (feedAddress: string, slug: string): string =>
  feedAddress.replace(/feed\.xml$/, `strands/${slug}/feed.xml`)

/** What is wrong with a rule; null where nothing is. */
export function strandFault({ goesBy, value }: StrandRule): string | null {
  if (goesBy === 'hand') return null
  if (value === null || value.trim() === '') return 'Say which one.'
  if (goesBy === 'season') return /^[1-9]\d{0,3}$/.test(value) ? null : 'The number of a season, 1 to 9999.'
  if (goesBy === 'kind') return /^(full|trailer|bonus)$/.test(value) ? null : 'One of full, trailer, bonus.'
  return null
}

/** Whether an item is in a strand; `chosen` are the GUIDs of those that were chosen by hand. */
export function isInStrand(
  { goesBy, value }: StrandRule,
  { guid, season, tags, kind }: Pick<FeedItem, 'guid' | 'season' | 'tags' | 'kind'>,
  chosen: ReadonlySet<string>,
): boolean {
  switch (goesBy) {
    case 'hand':
      return chosen.has(guid)
    case 'season':
      return season !== null && String(season) === value
    case 'tag':
      return tags.some(tag => tagKey(tag) === tagKey(value ?? ''))
    default:
      return kind === value
  }
}
