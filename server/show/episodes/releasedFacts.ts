import { LRUCache } from 'lru-cache'
import type { Outlet } from './audience'
import { outgoingOf, type Outgoing } from './outgoing'
import { releasedPictures } from './pictures'
import { type ReleasedEpisode, releasedEpisodes, releasedVersions } from './released'

/** So many episodes stay told in a process. */
const mostKept = 5_000

/** What is told of episodes, by what they and their show are. */
export type FactsCache<Facts> = Pick<Map<string, Facts>, 'get'> & { set(key: string, facts: Facts): unknown }
export const factsCache = <Facts extends object>(): FactsCache<Facts> => new LRUCache<string, Facts>({ max: mostKept })

/**
 * What is told of the episodes of a show that go out to an audience, the newest first. Of a long show that changes in one episode,
 * only that one is read and told again. Pictures are where everybody finds them.
 * @param by all that the telling takes from elsewhere
 */
export async function releasedFacts<Facts extends object>(
  showId: string,
  publicUrl: string,
  { audience }: Pick<Outlet, 'audience'>,
  cache: FactsCache<Facts>,
  by: unknown,
  tell: (outgoing: Outgoing, episode: ReleasedEpisode) => Facts,
): Promise<Facts[]> {
  const versions = await releasedVersions(showId, audience)
  const byWhom = JSON.stringify(by)
  const keyOf = ({ is }: { is: string }): string => `${is} ${byWhom}`
  const known = new Map(versions.map(each => [each.id, cache.get(keyOf(each))]))
  const missing = versions.filter(({ id }) => !known.get(id))
  if (missing.length > 0) {
    const wanted = missing.length === versions.length ? undefined : missing.map(({ id }) => id)
    const episodes = await releasedEpisodes(showId, audience, { ids: wanted })
    const pictureAddress = await releasedPictures(episodes, publicUrl)
    for (const episode of episodes) known.set(episode.id, tell(outgoingOf(episode, pictureAddress), episode))
    for (const each of missing) {
      const facts = known.get(each.id)
      if (facts) cache.set(keyOf(each), facts)
    }
  }
  return versions.flatMap(({ id }) => known.get(id) ?? [])
}
