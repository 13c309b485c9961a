import type { IncomingMessage, ServerResponse } from 'node:http'
import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../errors'
import { preflight } from '../media/publicAccess'
import { notAcceptable, sendingOf } from '../media/written'
import type { Platform } from '../platform'
import { askerOf, type ShortWay } from '../shortWay'
import type { Told } from '../shows/writtenAnswers'
import { feedReaders } from './readers'
import { feedService } from './service'

/** `/{show}/feed.xml` and its other forms and parts, for directories and listening apps. */
export const feedRoutes =
  (platform: Platform, short: ShortWay): FastifyPluginAsync =>
  async app => {
    const {
      clock,
      deliveries,
      configuration: { publicUrl, trustProxy },
    } = platform
    const feeds = feedService(platform)
    const asker = askerOf(trustProxy)
    const readers = feedReaders(platform)
    app.addHook('onClose', () => readers.flush())

    const feedsOfShow = ['/feed.xml', '/feed.json', '/parts/:part/feed.xml', '/strands/:strand/feed.xml'] as const
    for (const path of feedsOfShow) {
      app.options(`/:show${path}`, (_request, reply) => preflight(reply))
      app.get<{ Params: { show: string; part?: string; strand?: string } }>(`/:show${path}`, async (request, reply) => {
        const { show, part = '', strand = '' } = request.params
        const name = path.slice(1).replace(':part', part).replace(':strand', strand)
        const told = feeds.atHand(show, name) ?? (await feeds.current(show, name))
        if (!told) throw new AppError('not-found', 'There is no feed at this address.')
        // One feed has one address; other spellings of it lead there.
        if (told.slug !== show) return reply.redirect(`${publicUrl}/${told.slug}/${name}`, 301)
        if (told.movedTo) return reply.redirect(told.movedTo, 301)
        if (!send(request.raw, reply.raw, told)) throw notAcceptable()
        return reply.hijack()
      })
    }

    short.add((request, response) => {
      const [, show, name] =
        /^\/([^/?]+)\/((?:(?:parts|strands)\/[a-z0-9-]+\/)?feed\.(?:xml|json))$/.exec(request.url!) ?? []
      if (!show || (request.method !== 'GET' && request.method !== 'HEAD')) return false
      const feed = feeds.atHand(show, name)
      return feed !== null && !feed.movedTo && send(request, response, feed)
    })

    /** Sends a feed; false where the request takes none of its encodings. */
    function send(request: IncomingMessage, response: ServerResponse, { showId, path, answer }: Told): boolean {
      const sending = sendingOf(request, answer, clock.now())
      if (!sending) return false
      const { status, head, body } = sending
      const sent = request.method === 'HEAD' ? null : body
      response.writeHead(status, [...head]).end(sent ?? undefined)
      const address = asker(request)
      readers.note({ showId, name: path, userAgent: request.headers['user-agent'] ?? '', address, status })
      deliveries.follow(
        {
          kind: 'feed',
          showId,
          episodeId: null,
          address,
          status,
          part: sent && { start: 0, end: sent.length - 1 },
          isRange: false,
        },
        request,
        response,
        sent?.length ?? 0,
      )
      return true
    }
  }
