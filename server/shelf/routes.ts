import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { episode } from '@contract/episodes'
import { reuse, shelf } from '@contract/shelf'
import type { Platform } from '../platform'
import { shelfService } from './service'

export const shelfRoutes = (platform: Platform): FastifyPluginAsyncZod => async app => {
  const files = shelfService(platform)

  app.get('/shows/:id/files', { schema: { params: z.object({ id: z.uuid() }), response: { 200: shelf } } }, request => files.list(request.params.id))
  app.delete('/shows/:id/files/:fileId', { schema: { params: z.object({ id: z.uuid(), fileId: z.uuid() }), response: { 204: z.null() } } }, async (request, reply) => {
    await files.remove(request.params.id, request.params.fileId)
    return reply.code(204).send(null)
  })
  app.put('/episodes/:id/source', { schema: { params: z.object({ id: z.uuid() }), body: reuse, response: { 200: episode } } }, request =>
    files.reuse(request.params.id, request.body.fileId))
}
