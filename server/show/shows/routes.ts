import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { newAddress, newShow, show, showChange, showListQuery, showPage } from '@contract/shows'
import { accessTo, signedIn } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { showService } from './service'

const byId = z.object({ id: z.string() })

export const showRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const shows = showService(platform)

    app.get('/shows', { ...signedIn, schema: { querystring: showListQuery, response: { 200: showPage } } }, request =>
      shows.list(request.account.id, request.query),
    )
    app.get(
      '/shows/at/:slug',
      {
        ...accessTo('address', 'read', 'slug'),
        schema: { params: z.object({ slug: z.string() }), response: { 200: show } },
      },
      request => shows.get(request.scope),
    )
    app.post('/shows', { ...signedIn, schema: { body: newShow, response: { 201: show } } }, async (request, reply) =>
      reply.code(201).send(await shows.create(request.account.id, request.body)),
    )
    app.get('/shows/:id', { ...accessTo('show', 'read'), schema: { params: byId, response: { 200: show } } }, request =>
      shows.get(request.scope),
    )
    app.post(
      '/shows/:id/address',
      { ...accessTo('show', 'keep'), schema: { params: byId, body: newAddress, response: { 200: show } } },
      request => shows.moveTo(request.scope, request.body),
    )
    app.patch(
      '/shows/:id',
      { ...accessTo('show', 'make'), schema: { params: byId, body: showChange, response: { 200: show } } },
      request => shows.change(request.scope, request.body),
    )
  }
