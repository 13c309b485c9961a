import { randomBytes } from 'node:crypto'
import { EVENTS, Server } from '@tus/server'
import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../../platform/http/errors'
import { accessTo, signedIn } from '../../people/access/access'
import { scopeOf } from '../../people/access/scope'
import { nosniff } from '../../platform/http/nosniff'
import type { Platform } from '../../platform/platform'
import { asAppError, problemOf } from '../../platform/http/problems'
import { SharedLocker } from './locker'
import { uploadService } from './service'

/** The least room that a piece of an upload can be written into. */
const leastRoomBytes = 1_000_000

/** Resumable uploads by the tus protocol 1.0.0, with the metadata `episodeId`, `filename`, `role` and, of a piece, `position`. */
export const uploadRoutes =
  (platform: Platform): FastifyPluginAsync =>
  async app => {
    const { configuration, media, log } = platform
    const uploads = uploadService(platform)
    /** Who sends which request; the protocol's library hands on the request alone. */
    const accountsOf = new WeakMap<object, string>()
    const locker = new SharedLocker(configuration.databaseUrl)
    app.addHook('onClose', () => locker.close())

    const tus = new Server({
      path: '/api/v1/uploads',
      relativeLocation: true,
      locker,
      datastore: media.arrivals.tus,
      namingFunction: () => randomBytes(16).toString('hex'),
      // What is complete is being read, and is taken back by removing the episode or its file.
      disableTerminationForFinishedUploads: true,
      async onUploadCreate(request, { id, size, metadata }) {
        const to = await scopeOf(
          platform.database,
          accountsOf.get(request.runtime!.node!.req!)!,
          'episode',
          metadata?.episodeId ?? '',
          'make',
        )
        await uploads.announce(to, {
          id,
          bytes: size,
          fileName: metadata?.filename ?? 'sound',
          role: metadata?.role ?? undefined,
          position: metadata?.position ?? undefined,
        })
        return {}
      },
      async onUploadFinish(_request, { id }) {
        await uploads.received(id)
        return {}
      },
      /** Our errors in our words; of others nothing that was not meant for those outside. */
      async onResponseError(_request, error) {
        if ('status_code' in error && error.status_code < 500) return undefined
        const isFull = !(error instanceof AppError) && (await media.roomLeft()) < leastRoomBytes
        const known = isFull
          ? new AppError('no-room', 'The disk filled up while the file was coming in.')
          : asAppError(error, null, log)
        return { status_code: known.status, body: JSON.stringify(problemOf(known)) }
      },
    })
    tus.on(
      EVENTS.POST_TERMINATE,
      (_request, _response, id) => void uploads.givenUp(id).catch(error => log.error(error)),
    )

    app.removeAllContentTypeParsers()
    app.addContentTypeParser('*', (_request, _body, done) => done(null))
    app.route({
      method: ['POST', 'OPTIONS'],
      url: '/uploads',
      ...signedIn,
      schema: { hide: true },
      handler(request, reply) {
        accountsOf.set(request.raw, request.account.id)
        return hand(request.raw, reply.hijack().raw)
      },
    })
    app.route({
      method: ['HEAD', 'PATCH', 'DELETE', 'OPTIONS'],
      url: '/uploads/:id',
      ...accessTo('upload', 'make'),
      schema: { hide: true },
      handler: (request, reply) => hand(request.raw, reply.hijack().raw),
    })

    const hand: typeof tus.handle = (request, response) => {
      response.setHeaders(new Map(Object.entries(nosniff)))
      return tus.handle(request, response).catch(error => {
        log.error(error)
        response.destroy()
      })
    }
  }
