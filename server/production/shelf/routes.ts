import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { episode } from '@contract/episodes'
import { reuse, shelf, shelfQuery } from '@contract/shelf'
import { accessTo } from '../../people/access/access'
import { AppError } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { shelfService } from './service'

export const shelfRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const files = shelfService(platform)

    app.get(
      '/shows/:id/files',
      {
        ...accessTo('show', 'read'),
        schema: { params: z.object({ id: z.uuid() }), querystring: shelfQuery, response: { 200: shelf } },
      },
      request => files.list(request.scope, request.query),
    )
    app.delete(
      '/shows/:id/files/:fileId',
      {
        ...accessTo('file', 'keep', 'fileId'),
        schema: { params: z.object({ id: z.uuid(), fileId: z.uuid() }), response: { 204: z.null() } },
      },
      async (request, reply) => {
        if (request.scope.showId !== request.params.id)
          throw new AppError('not-found', 'There is no such file on this shelf.')
        await files.remove(request.scope)
        return reply.code(204).send(null)
      },
    )
    app.put(
      '/episodes/:id/source',
      {
        ...accessTo('episode', 'make'),
        schema: { params: z.object({ id: z.uuid() }), body: reuse, response: { 200: episode } },
      },
      request => files.reuse(request.scope, request.body.fileId),
    )
  }
