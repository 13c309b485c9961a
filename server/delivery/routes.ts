import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../errors'
import { type Answer, answerTo } from '../media/deliver'
import { storedPieces } from '../media/pieces'
import { preflight, publicAccess } from '../media/publicAccess'
import { nosniff } from '../nosniff'
import { deliverPicture } from '../pictures/deliverPicture'
import type { Platform } from '../platform'
import { type Deliverable, deliverableFiles } from './deliverables'
import { sendPart } from './sendPart'

type SoundRequest = FastifyRequest<{ Params: { episodeId: string; name: string } }>

/** Delivered files, without sign-in: audio of released episodes and public pictures, each at an address that never changes its content. */
export const deliveryRoutes =
  ({
    media,
    clock,
    events,
    deliveries,
    log,
    configuration: { mediaAccel, cacheBytes },
  }: Platform): FastifyPluginAsync =>
  async app => {
    const files = deliverableFiles(clock, events)
    const pieces = storedPieces(media, cacheBytes)
    app.addHook('onClose', async () => pieces.close())
    for (const url of ['/media/:episodeId/:name', '/media/artwork/:name'])
      app.options(url, (_request, reply) => preflight(reply))

    app.route<{ Params: { episodeId: string; name: string } }>({
      method: ['GET', 'HEAD'],
      url: '/media/:episodeId/:name',
      handler(request, reply) {
        const { episodeId, name } = request.params
        const known = files.atHand(episodeId, name)
        if (known) return send(request, reply, known)
        return (known === null ? Promise.resolve(null) : files.find(episodeId, name)).then(file => {
          if (file) return send(request, reply, file)
          reply.headers(publicAccess)
          throw new AppError('not-found', 'No released episode has this file.')
        })
      },
    })

    app.route<{ Params: { name: string } }>({
      method: ['GET', 'HEAD'],
      url: '/media/artwork/:name',
      handler: (request, reply) =>
        deliverPicture(request, reply.headers(publicAccess), media, request.params.name, 'everybody'),
    })

    /** Goes out by the shortest way: this is the main load of a house. */
    function send(request: SoundRequest, reply: FastifyReply, file: Deliverable): FastifyReply {
      const shownAt = mediaAccel && media.shownAt(file.sha256)
      const { status, headers, part } = shownAt
        ? handedOn(file, mediaAccel + shownAt)
        : answerTo(request, file, file.headers)
      const response = reply.hijack().raw
      response.writeHead(status, headers)
      const delivery = {
        kind: 'media' as const,
        showId: file.showId,
        episodeId: request.params.episodeId,
        address: request.ip,
        status,
        part,
        isRange: status === 206,
      }
      if (!part) {
        response.end()
        // HEAD delivers nothing, and is not counted (common practice, no source).
        if (request.method !== 'HEAD') deliveries.follow(delivery, request.raw, response, shownAt ? null : 0)
        return reply
      }
      const follow = (handedOver: number): void => deliveries.follow(delivery, request.raw, response, handedOver)
      const handedOver = sendPart(response, pieces, { sha256: file.sha256, fileBytes: file.bytes, ...part })
      if (typeof handedOver === 'number') follow(handedOver)
      else {
        handedOver
          .catch((error: unknown) => {
            log.error(error)
            response.destroy()
            return 0
          })
          .then(follow)
          .catch(error => log.error(error))
      }
      return reply
    }
  }

/** Which file it is, for a proxy that sends it: conditions and ranges are the proxy's to look at. */
function handedOn(file: Deliverable, address: string): Answer {
  return {
    status: 200,
    // Without a length the proxy would close the line behind each answer.
    headers: {
      'x-accel-redirect': address,
      'content-length': 0,
      'content-type': file.type,
      'cache-control': file.cacheControl,
      ...publicAccess,
      ...nosniff,
    },
    part: null,
  }
}
