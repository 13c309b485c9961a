import type { IncomingMessage, ServerResponse } from 'node:http'
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { embedQuery, readEmbedTheme } from '@core/site/embed'
import { filterQuery, readFilter } from '@core/site/filter'
import { renderMissingPage } from '@site/pages'
import { publicOutlet } from '../../show/episodes/audience'
import { askedDomainOf } from '../../show/shows/domainTable'
import { precondition } from '../../platform/storage/conditions'
import { notAcceptable, sendingOf } from '../../platform/storage/written'
import { publicAccess } from '../../platform/storage/publicAccess'
import { writtenPageHeaders } from '../../platform/http/pageHeaders'
import type { Platform } from '../../platform/platform'
import { redirect } from '../../platform/http/redirect'
import type { FastPath } from '../../platform/http/fastPath'
import { publicShowAt } from '../../show/shows/addresses'
import { type Addressed, addressesOf } from '../../show/shows/service'
import type { WrittenAnswer } from '../../show/shows/writtenAnswers'
import { commenting, mostCommentBytes } from './commenting'
import { robots, sitemapIndex } from './documents'
import { oembed, type OembedQuery } from './oembed'
import { writeSearch } from './searching'
import { sharePictures } from './sharePictures'
import { isTakenOut, siteService } from './service'

const queryOf = ({ url }: FastifyRequest): string => /\?(.*)/s.exec(url)?.[1] ?? ''

/** Which episodes are listed, and how a player looks, stands behind the `?`, in one spelling for each choice; all else there is passed by. */
function pathWith(path: string, query: string): string {
  if (path === 'episodes') return path + filterQuery(readFilter(query))
  return /(^|\/)embed$/.test(path) ? path + embedQuery(readEmbedTheme(query)) : path
}

/** The public pages of shows and episodes. */
export const siteRoutes =
  (platform: Platform, fast: FastPath): FastifyPluginAsync =>
  async app => {
    const { clock, siteAssets, configuration } = platform
    const { publicUrl } = configuration
    const pages = siteService(platform)
    const shared = sharePictures(platform)
    const comments = commenting(platform)
    const missing = renderMissingPage(siteAssets)
    const security = writtenPageHeaders(configuration)

    fast.add((request, response) => {
      const [, show, episode = ''] = /^\/([a-z0-9-]+)(?:\/([a-z0-9-]+))?$/.exec(request.url!) ?? []
      if (!show || (request.method !== 'GET' && request.method !== 'HEAD')) return false
      const told = pages.atHand(show, episode)
      return told !== null && told.hostName === askedDomainOf(request) && send(request, response, told)
    })

    /** Sends a page; false where the request takes none of its encodings. */
    function send(request: IncomingMessage, response: ServerResponse, { answer }: WrittenAnswer): boolean {
      const sending = sendingOf(request, answer, clock.now())
      if (!sending) return false
      const { status, head, body } = sending
      response.writeHead(status, [...head]).end(request.method === 'HEAD' ? undefined : (body ?? undefined))
      return true
    }

    async function page(
      request: FastifyRequest,
      reply: FastifyReply,
      show: string,
      episode = '',
    ): Promise<FastifyReply> {
      const path = pathWith(episode, queryOf(request))
      const told = pages.atHand(show, path) ?? (await pages.current(show, path))
      if (!told) {
        const row = await publicShowAt(show)
        const isRemoved = row !== null && episode !== '' && (await isTakenOut(row, episode))
        return reply
          .code(isRemoved ? 410 : 404)
          .type('text/html; charset=utf-8')
          .headers({ ...security, 'cache-control': 'public, no-cache' })
          .send(
            row
              ? await renderMissingPage(siteAssets, {
                  name: row.name,
                  language: row.language,
                  pageAddress: addressesOf(publicUrl, row).pageAddress,
                  isRemoved,
                })
              : await missing,
          )
      }
      const way = elsewhere(request, reply, told, told.path.replace(/\?.*/, ''))
      if (way) return way
      if (!send(request.raw, reply.raw, told)) throw notAcceptable()
      return reply.hijack()
    }

    /** Leads another spelling of a page's address, or another host, to the one that it has; null where it is that one. */
    function elsewhere(
      request: FastifyRequest,
      reply: FastifyReply,
      show: Addressed,
      path: string,
    ): FastifyReply | null {
      const own = path && `/${path}`
      const [asked, query] = request.url.split(/\?(.*)/s)
      if (asked === `/${show.slug}${own}` && show.hostName === askedDomainOf(request.raw)) return null
      return redirect(reply, `${addressesOf(publicUrl, show).pageAddress}${own}${query ? `?${query}` : ''}`)
    }

    app.get<{ Params: { show: string } }>('/:show', (request, reply) => page(request, reply, request.params.show))
    // An episode that had the name before keeps it.
    app.get<{ Params: { show: string }; Querystring: { q?: unknown } }>('/:show/search', async (request, reply) => {
      const show = await publicShowAt(request.params.show)
      if (!show || (await pages.current(show.slug, 'search')))
        return page(request, reply, request.params.show, 'search')
      const way = elsewhere(request, reply, show, 'search')
      if (way) return way
      const { q } = request.query
      return reply
        .type('text/html; charset=utf-8')
        .headers({ ...security, 'cache-control': 'public, no-cache' })
        .send(await writeSearch(platform, show, typeof q === 'string' ? q : '', publicOutlet(publicUrl)))
    })
    // With a slash behind it, an address leads to the one without.
    app.get<{ Params: { show: string } }>('/:show/', (request, reply) => page(request, reply, request.params.show))
    app.get<{ Params: { show: string; episode: string } }>('/:show/:episode', (request, reply) =>
      page(request, reply, request.params.show, request.params.episode),
    )
    app.get<{ Params: { show: string; episode: string } }>('/:show/:episode/embed', (request, reply) =>
      page(request, reply, request.params.show, `${request.params.episode}/embed`),
    )
    await app.register(async forms => {
      forms.addContentTypeParser(
        'application/x-www-form-urlencoded',
        { parseAs: 'string', bodyLimit: mostCommentBytes },
        async (_request: unknown, body: string) => body,
      )
      const said = { ...security, 'cache-control': 'no-store' }
      forms.post<{ Params: { show: string; episode: string } }>('/:show/:episode/comments', async (request, reply) => {
        const { show, episode } = request.params
        reply.type('text/html; charset=utf-8').headers(said)
        return (await comments.take(request, reply, show, episode)) ?? reply.code(404).send(await missing)
      })
      forms.get<{ Params: { show: string; episode: string } }>('/:show/:episode/comments', async (request, reply) => {
        const { show, episode } = request.params
        const thanks = await comments.thanks(show, episode)
        return reply
          .code(thanks ? 200 : 404)
          .type('text/html; charset=utf-8')
          .headers(said)
          .send(thanks ?? (await missing))
      })
    })
    const sendPicture = async (request: FastifyRequest, reply: FastifyReply, show: string, path: string) => {
      const picture = await shared.of(show, path)
      if (!picture)
        return reply
          .code(404)
          .type('text/html; charset=utf-8')
          .headers(security)
          .send(await missing)
      const etag = `"${picture.tag}"`
      reply.headers({ etag, 'last-modified': picture.at.toUTCString(), 'cache-control': 'public, max-age=3600' })
      if (precondition(request.headers, { etag, lastModified: picture.at }) === 304) return reply.code(304).send()
      return reply.type('image/jpeg').send(picture.bytes)
    }
    app.get<{ Params: { show: string } }>('/:show/share.jpg', (request, reply) =>
      sendPicture(request, reply, request.params.show, ''),
    )
    app.get<{ Params: { show: string; episode: string } }>('/:show/:episode/share.jpg', (request, reply) =>
      sendPicture(request, reply, request.params.show, request.params.episode),
    )
    app.get<{ Params: { show: string } }>('/:show/robots.txt', (request, reply) =>
      page(request, reply, request.params.show, 'robots.txt'),
    )
    app.get('/robots.txt', (_request, reply) => reply.type('text/plain; charset=utf-8').send(robots(publicUrl)))
    app.get('/sitemap.xml', async (_request, reply) =>
      reply.type('application/xml; charset=utf-8').send(await sitemapIndex(publicUrl)),
    )
    app.get<{ Querystring: Record<string, unknown> }>('/embed/oembed', async (request, reply) => {
      const said = Object.entries(request.query).filter(([, value]) => typeof value === 'string')
      const { type, body } = await oembed(platform, Object.fromEntries(said) as OembedQuery)
      return reply.type(type).headers(publicAccess).send(body)
    })
    for (const document of ['sitemap.xml', 'manifest.webmanifest'])
      app.get<{ Params: { show: string } }>(`/:show/${document}`, (request, reply) =>
        page(request, reply, request.params.show, document),
      )
  }
