import { randomBytes } from 'node:crypto'
import { FileStore } from '@tus/file-store'
import { EVENTS, Server } from '@tus/server'
import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../errors'
import { requireSignIn } from '../accounts/signedIn'
import type { Platform } from '../platform'
import { isDatabaseDown, problemOf } from '../problems'
import { SharedLocker } from './locker'
import { uploadService } from './service'

/** Resumable uploads by the tus protocol 1.0.0, with the metadata `episodeId` and `filename`. */
export const uploadRoutes = (platform: Platform): FastifyPluginAsync => async app => {
  const uploads = uploadService(platform)
  platform.jobs.handle('read-upload', ({ id }) => uploads.read(id!))

  const tus = new Server({
    path: '/api/v1/uploads',
    relativeLocation: true,
    locker: new SharedLocker(platform.configuration.databaseUrl),
    datastore: new FileStore({ directory: platform.media.inbox }),
    namingFunction: () => randomBytes(16).toString('hex'),
    async onUploadCreate(_request, { id, size, metadata }) {
      await asTusError(() => uploads.announce({ id, bytes: size ?? Number.NaN, episodeId: metadata?.episodeId ?? '', fileName: metadata?.filename ?? 'sound' }))
      return {}
    },
    async onUploadFinish(_request, { id }) {
      await asTusError(() => uploads.received(id))
      return {}
    },
  })
  tus.on(EVENTS.POST_TERMINATE, (_request, _response, id) => void uploads.givenUp(id).catch(error => platform.log.error(error)))

  requireSignIn(app, platform)
  app.addContentTypeParser('application/offset+octet-stream', (_request, _body, done) => done(null))
  app.route({
    method: ['POST', 'HEAD', 'PATCH', 'DELETE', 'OPTIONS'],
    url: '/uploads',
    schema: { hide: true },
    handler: (request, reply) => hand(request.raw, reply.hijack().raw),
  })
  app.route({
    method: ['HEAD', 'PATCH', 'DELETE', 'OPTIONS'],
    url: '/uploads/:id',
    schema: { hide: true },
    handler: (request, reply) => hand(request.raw, reply.hijack().raw),
  })

  const hand: typeof tus.handle = (request, response) => tus.handle(request, response)
}

/** Our errors as the tus server passes them on: status and body. */
async function asTusError(act: () => Promise<void>): Promise<void> {
  try {
    await act()
  } catch (error) {
    const known = isDatabaseDown(error) ? new AppError('unavailable', 'The database does not answer at the moment.') : error
    if (known instanceof AppError) throw { status_code: known.status, body: JSON.stringify(problemOf(known)) }
    throw known
  }
}
