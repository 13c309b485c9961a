import type { FastifyRequest } from 'fastify'
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { cropQuery, picture, smallPictureQuery } from '@contract/shows'
import { AppError, shown } from '../../platform/http/errors'
import { signedIn } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { deliverPicture } from './deliverPicture'
import { webForms } from './webForms'
import { pictureService } from './service'

const mostBytes = 25_000_000
const isPicture = /^(image\/(jpeg|png|webp)|application\/octet-stream)\b/i

export const pictureRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const pictures = pictureService(platform)
    const forms = webForms(platform)
    // Whatever a request says that it brings, here it is bytes; nothing else is ever handed to the picture library.
    app.removeAllContentTypeParsers()
    app.addContentTypeParser('*', { parseAs: 'buffer', bodyLimit: mostBytes }, (_request, body, done) =>
      done(null, body),
    )

    /** The picture that a request brings. */
    function bytesIn({ body, headers }: FastifyRequest): Buffer {
      if (!Buffer.isBuffer(body) || /^(\{\}|null)?$/.test(body.subarray(0, 8).toString('latin1').trim()))
        throw new AppError('unreadable', 'There is no picture in the request.')
      const type = headers['content-type']
      if (!isPicture.test(type ?? ''))
        throw new AppError(
          'unsupported',
          `A picture comes as image/jpeg, image/png, image/webp or application/octet-stream, not as ${shown(type)}.`,
        )
      return body
    }

    app.post(
      '/pictures',
      { ...signedIn, schema: { querystring: smallPictureQuery, response: { 201: picture } } },
      async (request, reply) =>
        reply.code(201).send(await pictures.addSmall(request.account.id, bytesIn(request), request.query.of)),
    )

    app.post(
      '/artwork',
      { ...signedIn, schema: { querystring: cropQuery, response: { 201: picture } } },
      async (request, reply) => {
        const bytes = bytesIn(request)
        const { left, top, sidePx } = request.query
        const crop = sidePx === undefined ? undefined : { left: left ?? 0, top: top ?? 0, sidePx }
        return reply.code(201).send(await pictures.addArtwork(request.account.id, bytes, crop))
      },
    )

    app.route({
      method: ['GET', 'HEAD'],
      url: '/pictures/:name',
      ...signedIn,
      schema: { params: z.object({ name: z.string() }) },
      async handler(request, reply) {
        const { name } = request.params
        if (!(await pictures.mayBeUsedBy(request.account.id, name.slice(0, 64))))
          throw new AppError('not-found', 'There is no such picture.')
        return deliverPicture(request, reply, platform.media, forms, name, 'the studio')
      },
    })
  }
