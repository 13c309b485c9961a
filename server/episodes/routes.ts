import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { episode, episodeChange, episodeSummary, keptText, newEpisode } from '@contract/episodes'
import type { Platform } from '../platform'
import { episodeService } from './service'

const byId = z.object({ id: z.uuid() })

export const episodeRoutes = (platform: Platform): FastifyPluginAsyncZod => async app => {
  const episodes = episodeService(platform)

  app.get('/shows/:id/episodes', { schema: { params: byId, response: { 200: z.array(episodeSummary), 304: z.null() } } }, async (request, reply) => {
    // Windows ask often, and mostly nothing has changed.
    const etag = `W/"${await episodes.listRevision(request.params.id)}"`
    reply.header('etag', etag)
    if (request.headers['if-none-match'] === etag) return reply.code(304).send(null)
    return episodes.list(request.params.id)
  })
  app.post('/shows/:id/episodes', { schema: { params: byId, body: newEpisode, response: { 201: episode } } }, async (request, reply) =>
    reply.code(201).send(await episodes.create(request.params.id, request.body)))
  app.get('/episodes/:id', { schema: { params: byId, response: { 200: episode } } }, request => episodes.get(request.params.id))
  app.patch('/episodes/:id', { schema: { params: byId, body: episodeChange, response: { 200: episode } }, bodyLimit: 2_000_000 }, request =>
    episodes.change(request.params.id, request.body))
  app.get('/episodes/:id/kept-texts', { schema: { params: byId, response: { 200: z.array(keptText) } } }, request =>
    episodes.kept(request.params.id))
  app.delete('/episodes/:id', { schema: { params: byId, response: { 204: z.null() } } }, async (request, reply) => {
    await episodes.remove(request.params.id)
    return reply.code(204).send(null)
  })
  app.post('/episodes/:id/restoration', { schema: { params: byId, response: { 200: episode } } }, request =>
    episodes.restore(request.params.id))
}
