import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { themeStep, showTheme, triedTheme } from '@contract/siteThemes'
import { accessTo } from '../../people/access/access'
import { publicOutlet } from '../../show/episodes/audience'
import { AppError } from '../../platform/http/errors'
import { lookedAtInside } from '../../platform/http/pageHeaders'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { htmlType } from '../pages/page'
import { pageAt } from '../pages/pages'
import { themeService } from './service'

const byId = z.object({ id: z.uuid() })
const answer = { 200: showTheme }

export const themeRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const themes = themeService(platform)
    const { publicUrl } = platform.configuration

    app.get('/shows/:id/theme', { ...accessTo('show', 'read'), schema: { params: byId, response: answer } }, request =>
      themes.get(request.scope),
    )
    app.put(
      '/shows/:id/theme',
      { ...accessTo('show', 'make'), schema: { params: byId, body: triedTheme, response: answer } },
      request => themes.try(request.scope, request.body),
    )
    const steps = { 'take-over': themes.takeOver, 'put-back': themes.putBack, leave: themes.leave }
    for (const [step, act] of Object.entries(steps))
      app.post(
        `/shows/:id/theme/${step}`,
        { ...accessTo('show', 'make'), schema: { params: byId, body: themeStep, response: answer } },
        request => act(request.scope, request.body),
      )

    /** A picture that is only tried is not public yet; the studio has all of them, and each in the same sizes. */
    const withPicturesOfStudio = (html: string): string =>
      html.replaceAll(`${publicUrl}/media/artwork/`, '/api/v1/pictures/')

    /** A page of the show as it would look. */
    app.get(
      '/shows/:id/theme/page',
      {
        ...accessTo('show', 'read'),
        schema: {
          params: byId,
          querystring: z.object({ path: z.string().max(200).default('') }),
          response: { 200: z.string() },
        },
      },
      async (request, reply) => {
        const show = await Show.findByPk(request.scope.showId, { rejectOnEmpty: true })
        show.theme = themes.triedOf(show)
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
