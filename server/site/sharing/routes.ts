import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { sharedEpisodes, sharingQuery } from '@contract/sharing'
import { isGuest } from '@core/notes/fill'
import { accessTo } from '../../people/access/access'
import { publicOutlet } from '../../show/episodes/audience'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { addressesOf } from '../../show/shows/service'
import { catalogueOf } from '../pages/catalogue'

const byId = z.object({ id: z.uuid() })
/** So many can be chosen from. */
const newest = 20

/** What there is to say of episodes elsewhere. */
export const sharingRoutes =
  ({ configuration: { publicUrl } }: Platform): FastifyPluginAsyncZod =>
  async app => {
    app.get(
      '/shows/:id/sharing',
      {
        ...accessTo('show', 'read'),
        schema: { params: byId, querystring: sharingQuery, response: { 200: sharedEpisodes } },
      },
      async ({ scope, query }) => {
        const show = await Show.findByPk(scope.showId, { rejectOnEmpty: true })
        const { entries } = await catalogueOf(show, publicUrl, publicOutlet(publicUrl))
        const first = entries.filter(({ id }) => id === query.first)
        const { feedAddress } = addressesOf(publicUrl, show)
        return {
          episodes: [...first, ...entries.filter(({ id }) => id !== query.first)]
            .slice(0, newest)
            .map(({ id, people, line }) => ({
              id,
              title: line.title,
              values: {
                title: line.title,
                number: line.number === null ? '' : String(line.number),
                hook: line.summary,
                guests: people
                  .filter(isGuest)
                  .map(({ name }) => name)
                  .join(', '),
                show: show.name,
                page: line.pageAddress,
                feed: feedAddress,
              },
              pageAddress: line.pageAddress,
              pictureAddress: `${line.pageAddress}/share.jpg`,
            })),
        }
      },
    )
  }
