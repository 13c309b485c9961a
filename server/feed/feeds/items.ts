import type { FeedItem } from '@core/feed/model'
import type { Outlet } from '../../show/episodes/audience'
import { type FactsCache, factsCache, releasedFacts } from '../../show/episodes/releasedFacts'
import type { Show } from '../../show/shows/models'
import { feedItemOf, tellingOf } from './item'

/** Items that were told before. */
export type KnownItems = FactsCache<FeedItem>
const cachedItems: KnownItems = factsCache()

/** What a feed of a show tells of the episodes in it, the newest first. */
export async function feedItems(
  show: Show,
  publicUrl: string,
  outlet: Omit<Outlet, 'headers'>,
  known: KnownItems = cachedItems,
): Promise<FeedItem[]> {
  const telling = tellingOf(show, outlet.base)
  return releasedFacts(show.id, publicUrl, outlet, known, telling, outgoing => feedItemOf(outgoing, telling))
}
