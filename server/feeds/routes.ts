import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../errors'
import { precondition } from '../media/conditions'
import { preflight } from '../media/publicAccess'
import type { Platform } from '../platform'
import { acceptedEncoding } from './encodings'
import { feedService, type WrittenFeed } from './service'

/** `/{show}/feed.xml`, for directories and listening apps. */
export const feedRoutes = (platform: Platform): FastifyPluginAsync => async app => {
  const { clock, configuration: { publicUrl } } = platform
  const feeds = feedService(platform)

  app.options('/:show/feed.xml', (_request, reply) => preflight(reply))
  app.get<{ Params: { show: string } }>('/:show/feed.xml', (request, reply) => {
    const { show } = request.params
    const feed = feeds.atHand(show)
    if (feed) return send(request, reply, feed, clock.now())
    return feeds.current(show).then(written => {
      if (!written) throw new AppError('not-found', 'There is no show at this address.')
      // One feed has one address; other spellings of it lead there.
      if (written.slug !== show) return reply.header('location', `${publicUrl}/${written.slug}/feed.xml`).code(301).send()
      return send(request, reply, written, clock.now())
    })
  })
}

function send(request: FastifyRequest, reply: FastifyReply, feed: WrittenFeed, now: Date): FastifyReply {
  const encoding = acceptedEncoding(request.headers['accept-encoding'])
  if (!encoding) throw new AppError('not-acceptable', 'The feed comes as br, gzip or identity; the request takes none of them.')
  const { body, etag, headers: usual } = feed.variants[encoding]
  // RFC 9110 section 8.8.2.1: a server MUST NOT generate a Last-Modified date that is later than the answer's own.
  const headers = feed.lastModified > now ? { ...usual, 'last-modified': now.toUTCString() } : usual
  const outcome = precondition(request.headers, { etag, lastModified: feed.lastModified })
  if (outcome !== 'pass') {
    // Most of what asks for a feed gets this answer, so it goes out by the shortest way.
    reply.hijack().raw.writeHead(outcome, headers).end()
    return reply
  }
  reply.headers(headers)
  if (encoding !== 'identity') reply.header('content-encoding', encoding)
  return reply.type('application/rss+xml; charset=utf-8').send(body)
}
