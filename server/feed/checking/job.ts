import { withAllFacts } from '@core/feed/facts'
import { Episode } from '../../show/episodes/models'
import { releasedVersions } from '../../show/episodes/released'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { lookAtFeed } from './ownFeed'

/** The job: writes the feed of a show that has changed, looks at it by all rules, and whether all that is released stands in it. */
export function checkFeed(
  platform: Pick<Platform, 'clock' | 'configuration' | 'database' | 'events'>,
): JobDefinition<Payloads['check-feed']> {
  return {
    lane: 'checking',
    async run({ showId }) {
      const show = await Show.findByPk(showId)
      if (!show) return
      const { feed } = await lookAtFeed(platform, show)
      const missing = await missingIn(feed.bodies.identity.toString(), show)
      const { feedRevision } = await Show.findByPk(showId, { attributes: ['feedRevision'], rejectOnEmpty: true })
      // What has changed meanwhile is looked at by the next.
      if (missing.length === 0 || feedRevision !== show.feedRevision) return
      throw new Error(`The feed of ${show.slug} lacks ${missing.length} released episodes, such as ${missing[0]!}.`)
    },
    gaveUp: null,
  }
}

/** The GUIDs of released episodes that a feed should have and has not. */
async function missingIn(text: string, { id: showId, feedFacts, isPrivate }: Show): Promise<string[]> {
  const { itemsPerPart } = withAllFacts(feedFacts)
  const released = await releasedVersions(showId, isPrivate ? { strandId: null } : 'everybody')
  const wanted = released.slice(0, itemsPerPart ?? undefined).map(({ id }) => id)
  const episodes = await Episode.findAll({ where: { id: wanted }, attributes: ['guid'], raw: true })
  const there = new Set([...text.matchAll(/<guid isPermaLink="false">([^<]+)</g)].map(found => found[1]))
  return episodes.map(({ guid }) => guid).filter(guid => !there.has(guid))
}
