import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { feedComparison } from '@contract/feed'
import { preview } from '@contract/preview'
import { accessTo } from '../access/access'
import type { Platform } from '../platform'
import { previewService } from './service'

const byId = z.object({ id: z.uuid() })
/** The page is looked at inside the studio, where no script of it runs, and nowhere else. */
const framed = {
  'content-security-policy':
    "default-src 'self'; script-src 'none'; style-src 'self' 'unsafe-inline'; img-src 'self' data: https: http:; media-src 'self' https: http:; frame-ancestors 'self'; base-uri 'none'; form-action 'none'",
  'x-frame-options': 'SAMEORIGIN',
  'cache-control': 'no-store',
}

export const previewRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const previews = previewService(platform)

    app.get(
      '/episodes/:id/preview',
      { ...accessTo('episode', 'look'), schema: { params: byId, response: { 200: preview } } },
      request => previews.look(request.scope),
    )
    app.get(
      '/episodes/:id/feed-change',
      { ...accessTo('episode', 'look'), schema: { params: byId, response: { 200: feedComparison } } },
      request => previews.change(request.scope),
    )
    app.get(
      '/episodes/:id/preview/page',
      { ...accessTo('episode', 'look'), schema: { params: byId, response: { 200: z.string() } } },
      async (request, reply) =>
        reply
          .headers(framed)
          .type('text/html; charset=utf-8')
          .send(await previews.page(request.scope)),
    )
  }
