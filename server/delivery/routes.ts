import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../errors'
import { type Answer, answerTo, fileHeaders } from '../media/deliver'
import { openFiles } from '../media/openFiles'
import { preflight, publicAccess } from '../media/publicAccess'
import { nosniff } from '../nosniff'
import { deliverPicture } from '../pictures/deliverPicture'
import type { Platform } from '../platform'
import { type Deliverable, deliverableFiles } from './deliverables'
import { sendPart } from './sendPart'

const cacheControl = 'public, max-age=31536000, immutable'

type SoundRequest = FastifyRequest<{ Params: { episodeId: string; name: string } }>

/** Delivered files, without sign-in: audio of released episodes and public pictures, each at an address that never changes its content. */
export const deliveryRoutes = ({ media, clock, events, deliveries, log, configuration: { mediaAccel } }: Platform): FastifyPluginAsync => async app => {
  const files = deliverableFiles(clock, events)
  const open = openFiles(media)
  app.addHook('onClose', async () => open.close())
  for (const url of ['/media/:episodeId/:name', '/media/artwork/:name']) app.options(url, (_request, reply) => preflight(reply))

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
    handler: (request, reply) => deliverPicture(request, reply.headers(publicAccess), media, request.params.name, 'everybody'),
  })

  /** Goes out by the shortest way: this is the main load of a house. */
  function send(request: SoundRequest, reply: FastifyReply, file: Deliverable): FastifyReply {
    const shownAt = mediaAccel && media.shownAt(file.sha256)
    const answer = shownAt ? handedOn(file, mediaAccel + shownAt) : answerTo(request, { ...file, cacheControl }, headersOf(file))
    const response = reply.hijack().raw
    response.writeHead(answer.status, answer.headers)
    deliveries.follow({ kind: 'media', showId: file.showId, episodeId: request.params.episodeId, address: request.ip }, request.raw, response, answer.part, Boolean(shownAt))
    const { part } = answer
    if (!part || shownAt) response.end()
    else {
      open.use(file.sha256, opened => sendPart(response, opened, part)).catch(error => {
        log.error(error)
        response.destroy()
      })
    }
    return reply
  }
}

/** The headers of a file are the same for each request. */
const headersKept = new WeakMap<Deliverable, Readonly<Record<string, string>>>()

function headersOf(file: Deliverable): Readonly<Record<string, string>> {
  const known = headersKept.get(file)
  if (known) return known
  const headers = { ...fileHeaders({ ...file, cacheControl }), ...publicAccess, ...nosniff }
  headersKept.set(file, headers)
  return headers
}

/** Which file it is, for a proxy that sends it: conditions and ranges are the proxy's to look at. */
function handedOn(file: Deliverable, address: string): Answer {
  return {
    status: 200,
    headers: { 'x-accel-redirect': address, 'content-type': file.type, 'cache-control': cacheControl, ...publicAccess, ...nosniff },
    part: null,
  }
}
