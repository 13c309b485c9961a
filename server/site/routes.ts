import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { renderMissingPage } from '@site/pages'
import { sendWritten } from '../media/written'
import type { Platform } from '../platform'
import { siteService } from './service'

/** The public pages of shows and episodes. */
export const siteRoutes =
  (platform: Platform): FastifyPluginAsync =>
  async app => {
    const {
      clock,
      siteAssets,
      configuration: { publicUrl },
    } = platform
    const pages = siteService(platform)
    const missing = renderMissingPage(siteAssets)

    async function page(
      request: FastifyRequest,
      reply: FastifyReply,
      show: string,
      episode = '',
    ): Promise<FastifyReply> {
      const told = pages.atHand(show, episode) ?? (await pages.current(show, episode))
      if (!told)
        return reply
          .code(404)
          .type('text/html; charset=utf-8')
          .header('cache-control', 'public, no-cache')
          .send(await missing)
      return (
        elsewhere(request, reply, `/${told.slug}${episode && `/${told.path}`}`) ??
        sendWritten(request, reply, told.answer, clock.now())
      )
    }

    /** Leads another spelling of a page's address to the one that it has; null where it is that one. */
    function elsewhere(request: FastifyRequest, reply: FastifyReply, ownPath: string): FastifyReply | null {
      const [path, query] = request.url.split(/\?(.*)/s)
      if (path === ownPath) return null
      return reply
        .header('location', `${publicUrl}${ownPath}${query ? `?${query}` : ''}`)
        .code(301)
        .send()
    }

    app.get<{ Params: { show: string } }>('/:show', (request, reply) => page(request, reply, request.params.show))
    // With a slash behind it, an address leads to the one without.
    app.get<{ Params: { show: string } }>('/:show/', (request, reply) => page(request, reply, request.params.show))
    app.get<{ Params: { show: string; episode: string } }>('/:show/:episode', (request, reply) =>
      page(request, reply, request.params.show, request.params.episode),
    )
  }
