import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../errors'
import { preflight } from '../media/publicAccess'
import { sendingOf } from '../media/written'
import type { Platform } from '../platform'
import type { Told } from '../shows/writtenAnswers'
import { feedService } from './service'

/** `/{show}/feed.xml`, for directories and listening apps. */
export const feedRoutes =
  (platform: Platform): FastifyPluginAsync =>
  async app => {
    const {
      clock,
      deliveries,
      configuration: { publicUrl },
    } = platform
    const feeds = feedService(platform)

    app.options('/:show/feed.xml', (_request, reply) => preflight(reply))
    app.get<{ Params: { show: string } }>('/:show/feed.xml', (request, reply) => {
      const { show } = request.params
      const feed = feeds.atHand(show)
      if (feed) return send(request, reply, feed)
      return feeds.current(show).then(told => {
        if (!told) throw new AppError('not-found', 'There is no show at this address.')
        // One feed has one address; other spellings of it lead there.
        if (told.slug !== show) return reply.header('location', `${publicUrl}/${told.slug}/feed.xml`).code(301).send()
        return send(request, reply, told)
      })
    })

    /** Most of what asks for a feed has it already, so the answer goes out by the shortest way. */
    function send(request: FastifyRequest, reply: FastifyReply, { showId, answer }: Told): FastifyReply {
      const { status, headers, body } = sendingOf(request, answer, clock.now())
      const response = reply.hijack().raw
      const sent = request.method === 'HEAD' ? null : body
      response.writeHead(status, headers).end(sent ?? undefined)
      deliveries.follow(
        {
          kind: 'feed',
          showId,
          episodeId: null,
          address: request.ip,
          status,
          part: sent && { start: 0, end: sent.length - 1 },
          isRange: false,
        },
        request.raw,
        response,
        sent?.length ?? 0,
      )
      return reply
    }
  }
