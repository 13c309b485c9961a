import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../errors'
import { precondition } from '../media/conditions'
import type { Platform } from '../platform'
import { type Encoding, feedService } from './service'

/** `/{show}/feed.xml`, for directories and listening apps. */
export const feedRoutes = (platform: Platform): FastifyPluginAsync => async app => {
  const feeds = feedService(platform)

  app.get<{ Params: { show: string } }>('/:show/feed.xml', async (request, reply) => {
    const feed = await feeds.current(request.params.show)
    if (!feed) throw new AppError('not-found', 'There is no show at this address.')
    const encoding = acceptedEncoding(request.headers['accept-encoding'])
    const { body, etag } = feed.variants[encoding]
    const validators = { etag, lastModified: feed.lastModified }
    reply.headers({
      etag,
      'last-modified': feed.lastModified.toUTCString(),
      // Kept by whoever likes, and asked about each time: the copy an app shows is always the current one.
      'cache-control': 'public, no-cache',
      vary: 'accept-encoding',
      'access-control-allow-origin': '*',
    })
    const outcome = precondition(request.headers, validators)
    if (outcome !== 'pass') return reply.code(outcome).send()
    if (encoding !== 'identity') reply.header('content-encoding', encoding)
    return reply.type('application/rss+xml; charset=utf-8').send(body)
  })
}

/** The best encoding that a request takes: RFC 9110 section 12.5.3, a weight of 0 means "not acceptable". */
function acceptedEncoding(header: string | undefined): Encoding {
  if (!header) return 'identity'
  const takes = (name: string): boolean => new RegExp(`(^|[,\\s])${name}(?!\\s*;\\s*q=0(\\.0*)?\\s*(,|$))\\s*(;|,|$)`, 'i').test(header)
  return takes('br') ? 'br' : takes('gzip') ? 'gzip' : 'identity'
}
