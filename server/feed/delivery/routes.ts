import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../../platform/http/errors'
import { preflight, publicAccess } from '../../platform/storage/publicAccess'
import { deliverPicture } from '../../media/pictures/deliverPicture'
import { webForms } from '../../media/pictures/webForms'
import type { Platform } from '../../platform/platform'
import type { FastPath } from '../../platform/http/fastPath'
import { deliverableFiles } from './deliverables'
import type { MediaSender } from './send'
import { sourceIn } from './source'

/** Delivered files, without sign-in: audio of released episodes and public pictures, each at an address that never changes its content. */
export const deliveryRoutes =
  (platform: Platform, { send, close }: MediaSender, fast: FastPath): FastifyPluginAsync =>
  async app => {
    const { media, clock, events } = platform
    const forms = webForms(platform)
    const files = deliverableFiles(clock, events)
    app.addHook('onClose', async () => close())
    for (const url of ['/media/:episodeId/:name', '/media/artwork/:name'])
      app.options(url, (_request, reply) => preflight(reply))

    app.route<{ Params: { episodeId: string; name: string }; Querystring: { from?: unknown } }>({
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
        send(request.raw, reply.raw, { episodeId, file, source: sourceIn(request.query.from) })
      },
    })

    fast.add((request, response) => {
      const [, episodeId, name, from] = /^\/media\/([\da-f-]{36})\/([\w.-]+)(?:\?from=(\w+))?$/.exec(request.url!) ?? []
      if (!episodeId || (request.method !== 'GET' && request.method !== 'HEAD')) return false
      const file = files.atHand(episodeId, name!)
      if (!file) return false
      send(request, response, { episodeId, file, source: sourceIn(from) })
      return true
    })

    app.route<{ Params: { name: string } }>({
      method: ['GET', 'HEAD'],
      url: '/media/artwork/:name',
      handler: (request, reply) =>
        deliverPicture(request, reply.headers(publicAccess), media, forms, request.params.name, 'everybody'),
    })
  }
