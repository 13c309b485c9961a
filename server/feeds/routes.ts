import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../errors'
import { precondition } from '../media/conditions'
import type { Platform } from '../platform'
import { type Encoding, feedService, type WrittenFeed } from './service'

/** `/{show}/feed.xml`, for directories and listening apps. */
export const feedRoutes = (platform: Platform): FastifyPluginAsync => async app => {
  const feeds = feedService(platform)

  app.get<{ Params: { show: string } }>('/:show/feed.xml', (request, reply) => {
    const { show } = request.params
    const feed = feeds.atHand(show)
    if (feed) return send(request, reply, feed)
    return feeds.current(show).then(written => {
      if (!written) throw new AppError('not-found', 'There is no show at this address.')
      return send(request, reply, written)
    })
  })
}

function send(request: FastifyRequest, reply: FastifyReply, feed: WrittenFeed): FastifyReply {
  const encoding = acceptedEncoding(request.headers['accept-encoding'])
  const { body, etag, headers } = feed.variants[encoding]
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

const taking = (name: string): RegExp => new RegExp(`(^|[,\\s])${name}(?!\\s*;\\s*q=0(\\.0*)?\\s*(,|$))\\s*(;|,|$)`, 'i')
const takes = { br: taking('br'), gzip: taking('gzip') }

/** The best encoding that a request takes: RFC 9110 section 12.5.3, a weight of 0 means "not acceptable". */
function acceptedEncoding(header: string | undefined): Encoding {
  if (!header) return 'identity'
  if (takes.br.test(header)) return 'br'
  return takes.gzip.test(header) ? 'gzip' : 'identity'
}
