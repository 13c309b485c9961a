import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { accessTo } from '../../people/access/access'
import type { Scope } from '../../people/access/scope'
import { AppError } from '../../platform/http/errors'
import { deliver } from '../../platform/storage/deliver'
import type { Platform } from '../../platform/platform'
import { fileDecoding } from './decoding'
import { AudioFile, deliveryOf } from './models'

const byId = z.object({ id: z.uuid() })
/** From which frame of which clock; what is sent are interleaved frames of 16 bits, little-endian, with one channel or two. */
const frames = z.object({
  sampleRateHz: z.coerce.number().int().min(8_000).max(96_000),
  fromFrame: z.coerce.number().int().min(0),
})
const mayKeep = 'private, max-age=31536000, immutable'

/** Files for the studio: the sound to listen to before a release, and its waveform. */
export const fileRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const { media } = platform
    const decoding = fileDecoding(media)

    async function find({ id, showId }: Scope): Promise<AudioFile> {
      const file = await AudioFile.findOne({ where: { id, showId } })
      if (!file || file.address) throw new AppError('not-found', 'There is no such file here.')
      return file
    }

    async function withOwnBytes(scope: Scope): Promise<AudioFile> {
      const file = await find(scope)
      if (file.mix) throw new AppError('not-found', 'It is put together here, and has no file until it is finished.')
      return file
    }

    app.route({
      method: ['GET', 'HEAD'],
      url: '/files/:id/sound',
      ...accessTo('file', 'read'),
      schema: { params: byId },
      async handler(request, reply) {
        const file = await withOwnBytes(request.scope)
        return deliver(request, reply, media, deliveryOf(file, mayKeep))
      },
    })

    app.route({
      method: ['GET', 'HEAD'],
      url: '/files/:id/download',
      ...accessTo('file', 'read'),
      schema: { params: byId },
      async handler(request, reply) {
        const file = await withOwnBytes(request.scope)
        // RFC 6266 section 4.3: the name in any letters, percent-encoded.
        reply.header(
          'content-disposition',
          `attachment; filename*=UTF-8''${encodeURIComponent(file.name.toWellFormed())}`,
        )
        return deliver(request, reply, media, deliveryOf(file, mayKeep))
      },
    })

    app.get(
      '/files/:id/frames',
      { ...accessTo('file', 'read'), schema: { params: byId, querystring: frames } },
      async (request, reply) => {
        const file = await withOwnBytes(request.scope)
        return reply
          .header('cache-control', 'no-store')
          .type('application/octet-stream')
          .send(await decoding.from(file, request.query, request.account.id))
      },
    )

    app.get(
      '/files/:id/waveform',
      { ...accessTo('file', 'read'), schema: { params: byId } },
      async (request, reply) => {
        const file = await find(request.scope)
        if (!file.waveformId) throw new AppError('not-found', 'The file is not measured yet.')
        return reply.header('cache-control', mayKeep).type('application/octet-stream').send(media.read(file.waveformId))
      },
    )
  }
