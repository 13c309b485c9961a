import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { newShow, show, showChange } from '@contract/shows'
import type { Platform } from '../platform'
import { showService } from './service'

const byId = z.object({ id: z.string() })

export const showRoutes = (platform: Platform): FastifyPluginAsyncZod => async app => {
  const shows = showService(platform)

  app.get('/shows', { schema: { response: { 200: z.array(show) } } }, () => shows.list())
  app.post('/shows', { schema: { body: newShow, response: { 201: show } } }, async (request, reply) =>
    reply.code(201).send(await shows.create(request.body)))
  app.get('/shows/:id', { schema: { params: byId, response: { 200: show } } }, request => shows.get(request.params.id))
  app.patch('/shows/:id', { schema: { params: byId, body: showChange, response: { 200: show } } }, request =>
    shows.change(request.params.id, request.body))
}
