import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { feedComparison } from '@contract/feed'
import { preview } from '@contract/preview'
import { accessTo } from '../../people/access/access'
import { lookedAtInside } from '../../platform/http/pageHeaders'
import type { Platform } from '../../platform/platform'
import { previewService } from './service'

const byId = z.object({ id: z.uuid() })
export const previewRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const previews = previewService(platform)

    app.get(
      '/episodes/:id/preview',
      { ...accessTo('episode', 'read'), schema: { params: byId, response: { 200: preview } } },
      request => previews.look(request.scope),
    )
    app.get(
      '/episodes/:id/feed-change',
      { ...accessTo('episode', 'read'), schema: { params: byId, response: { 200: feedComparison } } },
      request => previews.change(request.scope),
    )
    app.get(
      '/episodes/:id/preview/page',
      { ...accessTo('episode', 'read'), schema: { params: byId, response: { 200: z.string() } } },
      async (request, reply) =>
        reply
          .headers(lookedAtInside)
          .type('text/html; charset=utf-8')
          .send(await previews.page(request.scope)),
    )
  }
