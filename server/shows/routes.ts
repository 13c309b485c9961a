import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { cropQuery, newShow, picture, show, showChange } from '@contract/shows'
import type { Platform } from '../platform'
import { pictureService } from './pictures'
import { showService } from './service'

const byId = z.object({ id: z.string() })

export const showRoutes = (platform: Platform): FastifyPluginAsyncZod => async app => {
  const shows = showService(platform)
  const pictures = pictureService(platform)
  app.addContentTypeParser(['image/jpeg', 'image/png', 'application/octet-stream'], { parseAs: 'buffer', bodyLimit: 25_000_000 }, (_request, body, done) => done(null, body))

  app.get('/shows', { schema: { response: { 200: z.array(show) } } }, () => shows.list())
  app.post('/shows', { schema: { body: newShow, response: { 201: show } } }, async (request, reply) =>
    reply.code(201).send(await shows.create(request.body)))
  app.get('/shows/:id', { schema: { params: byId, response: { 200: show } } }, request => shows.get(request.params.id))
  app.patch('/shows/:id', { schema: { params: byId, body: showChange, response: { 200: show } } }, request =>
    shows.change(request.params.id, request.body))

  app.post('/artwork', { schema: { querystring: cropQuery, response: { 201: picture } } }, async (request, reply) => {
    const { left, top, sidePx } = request.query
    const crop = sidePx === undefined ? undefined : { left: left ?? 0, top: top ?? 0, sidePx }
    return reply.code(201).send(await pictures.addArtwork(request.body as unknown as Buffer, crop))
  })
}
