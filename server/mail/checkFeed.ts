import { Episode } from '../episodes/models'
import { feedText } from '../feeds/service'
import type { JobDefinition, Payloads } from '../jobs/kinds'
import type { Platform } from '../platform'
import { Show } from '../shows/models'

/** The job: writes the feed of a show after a release, and looks whether everything that is released stands in it. */
export function checkFeed({ configuration }: Pick<Platform, 'configuration'>): JobDefinition<Payloads['check-feed']> {
  return {
    lane: 'telling',
    async run({ showId }) {
      const show = await Show.findByPk(showId)
      if (!show) return
      const released = await Episode.findAll({
        where: { showId, standing: 'released' },
        attributes: ['guid'],
        raw: true,
      })
      const text = await feedText(show, configuration)
      const there = new Set([...text.matchAll(/<guid isPermaLink="false">([^<]+)</g)].map(found => found[1]))
      const missing = released.filter(({ guid }) => !there.has(guid))
      if (missing.length === 0) return
      throw new Error(
        `The feed of ${show.slug} lacks ${missing.length} released episodes, such as ${missing[0]!.guid}.`,
      )
    },
    gaveUp: null,
  }
}
