import { LRUCache } from 'lru-cache'
import type { FeedItem } from '@core/feed/model'
import type { Outlet } from '../../show/episodes/audience'
import { outgoingOf } from '../../show/episodes/outgoing'
import { releasedPictures } from '../../show/episodes/pictures'
import { releasedEpisodes, releasedVersions } from '../../show/episodes/released'
import type { Show } from '../../show/shows/models'
import { feedItemOf, tellingOf } from './item'

/** So many items stay told in a process; of a long show that changes in one episode, only that one is read and told again. */
const mostItems = 5_000
const cachedItems = new LRUCache<string, FeedItem>({ max: mostItems })
/** Items that were told before. */
export type KnownItems = Pick<Map<string, FeedItem>, 'get'> & { set(key: string, item: FeedItem): unknown }

/** What a feed of a show tells of the episodes in it, the newest first. Pictures are where everybody finds them. */
export async function feedItems(
  show: Show,
  publicUrl: string,
  { audience, base }: Omit<Outlet, 'headers'>,
  known: KnownItems = cachedItems,
): Promise<FeedItem[]> {
  const versions = await releasedVersions(show.id, audience)
  const telling = tellingOf(show, base)
  const byWhom = JSON.stringify(telling)
  const keyOf = ({ is }: { is: string }): string => `${is} ${byWhom}`
  const items = new Map(versions.map(each => [each.id, known.get(keyOf(each))]))
  const missing = versions.filter(({ id }) => !items.get(id))
  if (missing.length > 0) {
    const wanted = missing.length === versions.length ? undefined : missing.map(({ id }) => id)
    const episodes = await releasedEpisodes(show.id, audience, { ids: wanted })
    const pictureAddress = await releasedPictures(episodes, publicUrl)
    for (const episode of episodes) items.set(episode.id, feedItemOf(outgoingOf(episode, pictureAddress), telling))
    for (const each of missing) {
      const item = items.get(each.id)
      if (item) known.set(keyOf(each), item)
    }
  }
  return versions.flatMap(({ id }) => items.get(id) ?? [])
}
