import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { lookStep, showLook, triedLook } from '@contract/looks'
import { accessTo } from '../access/access'
import { publicOutlet } from '../episodes/audience'
import { AppError } from '../errors'
import { lookedAtInside } from '../pageHeaders'
import type { Platform } from '../platform'
import { Show } from '../shows/models'
import { htmlType } from '../site/page'
import { pageAt } from '../site/pages'
import { lookService } from './service'

const byId = z.object({ id: z.uuid() })
const answer = { 200: showLook }

export const lookRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const looks = lookService(platform)
    const { publicUrl } = platform.configuration

    app.get('/shows/:id/look', { ...accessTo('show', 'look'), schema: { params: byId, response: answer } }, request =>
      looks.get(request.scope),
    )
    app.put(
      '/shows/:id/look',
      { ...accessTo('show', 'make'), schema: { params: byId, body: triedLook, response: answer } },
      request => looks.try(request.scope, request.body),
    )
    const steps = { 'take-over': looks.takeOver, 'put-back': looks.putBack, leave: looks.leave }
    for (const [step, act] of Object.entries(steps))
      app.post(
        `/shows/:id/look/${step}`,
        { ...accessTo('show', 'make'), schema: { params: byId, body: lookStep, response: answer } },
        request => act(request.scope, request.body),
      )

    /** A picture that is only tried is not public yet; the studio has all of them, and each in the same sizes. */
    const withPicturesOfStudio = (html: string): string =>
      html.replaceAll(`${publicUrl}/media/artwork/`, '/api/v1/pictures/')

    /** A page of the show as it would look. */
    app.get(
      '/shows/:id/look/page',
      {
        ...accessTo('show', 'look'),
        schema: {
          params: byId,
          querystring: z.object({ path: z.string().max(200).default('') }),
          response: { 200: z.string() },
        },
      },
      async (request, reply) => {
        const show = await Show.findByPk(request.scope.showId, { rejectOnEmpty: true })
        show.look = looks.triedOf(show)
        const page = await pageAt(platform, show, request.query.path, publicOutlet(publicUrl))
        if (!page) throw new AppError('not-found', 'There is no such page of the show.')
        const { type = htmlType, body } = page
        return reply
          .headers(lookedAtInside)
          .type(type)
          .send(type === htmlType ? withPicturesOfStudio(body) : body)
      },
    )
  }
