import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { wordIndex } from './wordIndex'

/** The job: has the words of a show ready to be found, before somebody looks for them. */
export const indexWords = (
  platform: Pick<Platform, 'database' | 'configuration'>,
): JobDefinition<Payloads['index-words']> => {
  const index = wordIndex(platform)
  return {
    lane: 'checking',
    async run({ showId }) {
      const show = await Show.findByPk(showId, { attributes: ['id', 'feedRevision'] })
      if (show) await index.upToDate(show)
    },
    gaveUp: null,
  }
}
