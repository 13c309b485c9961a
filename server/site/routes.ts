import fastifyCompress from '@fastify/compress'
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { renderEpisodePage, renderMissingPage, renderShowPage } from '@site/pages'
import type { Platform } from '../platform'
import { siteService } from './service'

/** The public pages of shows and episodes. */
export const siteRoutes = (platform: Platform): FastifyPluginAsync => async app => {
  const site = siteService(platform)
  await app.register(fastifyCompress, { encodings: ['br', 'gzip'] })

  const page = (reply: FastifyReply, status: number, html: string): FastifyReply =>
    reply.code(status).type('text/html; charset=utf-8').header('cache-control', 'public, no-cache').send(html)
  const missing = async (reply: FastifyReply): Promise<FastifyReply> => page(reply, 404, await renderMissingPage(platform.siteAssets))

  const showPage = async (request: FastifyRequest<{ Params: { show: string } }>, reply: FastifyReply): Promise<FastifyReply> => {
    const show = await site.show(request.params.show)
    if (!show) return missing(reply)
    return elsewhere(request, reply, show.show.pageAddress) ?? page(reply, 200, await renderShowPage(show, platform.siteAssets))
  }
  app.get('/:show', showPage)
  // With a slash behind it, an address leads to the one without.
  app.get('/:show/', showPage)

  app.get<{ Params: { show: string; episode: string } }>('/:show/:episode', async (request, reply) => {
    const episode = await site.episode(request.params.show, request.params.episode)
    if (!episode) return missing(reply)
    return elsewhere(request, reply, episode.episode.pageAddress) ?? page(reply, 200, await renderEpisodePage(episode, platform.siteAssets))
  })
}

/** Leads another spelling of a page's address to the one that it has; null where it is that one. */
function elsewhere(request: FastifyRequest, reply: FastifyReply, pageAddress: string): FastifyReply | null {
  const [path, query] = request.url.split(/\?(.*)/s)
  if (path === new URL(pageAddress).pathname) return null
  return reply.header('location', `${pageAddress}${query ? `?${query}` : ''}`).code(301).send()
}
