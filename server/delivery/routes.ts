import type { IncomingMessage, ServerResponse } from 'node:http'
import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../errors'
import { type Answer, answerTo } from '../media/deliver'
import { headOf } from '../media/head'
import { storedPieces } from '../media/pieces'
import { preflight, publicAccess } from '../media/publicAccess'
import { nosniff } from '../nosniff'
import { deliverPicture } from '../pictures/deliverPicture'
import type { Platform } from '../platform'
import { askerOf, type ShortWay } from '../shortWay'
import { type Deliverable, deliverableFiles } from './deliverables'
import { sendPart } from './sendPart'

/** Delivered files, without sign-in: audio of released episodes and public pictures, each at an address that never changes its content. */
export const deliveryRoutes =
  (
    { media, clock, events, deliveries, log, configuration: { mediaAccel, cacheBytes, trustProxy } }: Platform,
    short: ShortWay,
  ): FastifyPluginAsync =>
  async app => {
    const files = deliverableFiles(clock, events)
    const asker = askerOf(trustProxy)
    const pieces = storedPieces(media, cacheBytes)
    app.addHook('onClose', async () => pieces.close())
    for (const url of ['/media/:episodeId/:name', '/media/artwork/:name'])
      app.options(url, (_request, reply) => preflight(reply))

    app.route<{ Params: { episodeId: string; name: string } }>({
      method: ['GET', 'HEAD'],
      url: '/media/:episodeId/:name',
      async handler(request, reply) {
        const { episodeId, name } = request.params
        const known = files.atHand(episodeId, name)
        const file = known === undefined ? await files.find(episodeId, name) : known
        if (!file) {
          reply.headers(publicAccess)
          throw new AppError('not-found', 'No released episode has this file.')
        }
        reply.hijack()
        send(request.raw, reply.raw, episodeId, file)
      },
    })

    short.add((request, response) => {
      const [, episodeId, name] = /^\/media\/([\da-f-]{36})\/([\w.-]+)$/.exec(request.url!) ?? []
      if (!episodeId || (request.method !== 'GET' && request.method !== 'HEAD')) return false
      const file = files.atHand(episodeId, name!)
      if (!file) return false
      send(request, response, episodeId, file)
      return true
    })

    app.route<{ Params: { name: string } }>({
      method: ['GET', 'HEAD'],
      url: '/media/artwork/:name',
      handler: (request, reply) =>
        deliverPicture(request, reply.headers(publicAccess), media, request.params.name, 'everybody'),
    })

    function send(request: IncomingMessage, response: ServerResponse, episodeId: string, file: Deliverable): void {
      const shownAt = mediaAccel && media.shownAt(file.sha256)
      const { status, head, part } = shownAt ? handedOn(file, mediaAccel + shownAt) : answerTo(request, file, file.head)
      response.writeHead(status, [...head])
      const delivery = {
        kind: 'media' as const,
        showId: file.showId,
        episodeId,
        address: asker(request),
        status,
        part,
        isRange: status === 206,
      }
      const follow = (handedOver: number | null): void => deliveries.follow(delivery, request, response, handedOver)
      if (!part) {
        response.end()
        // HEAD delivers nothing, and is not counted (common practice, no source).
        if (request.method !== 'HEAD') follow(shownAt ? null : 0)
        return
      }
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
    }
  }

const alongside = headOf({ ...publicAccess, ...nosniff })

/** Which file it is, for a proxy that sends it: conditions and ranges are the proxy's to look at. */
function handedOn({ type, cacheControl }: Deliverable, address: string): Answer {
  // Without a length the proxy would close the line behind each answer.
  const file = ['x-accel-redirect', address, 'content-length', '0', 'content-type', type, 'cache-control', cacheControl]
  return { status: 200, head: [...file, ...alongside], part: null }
}
