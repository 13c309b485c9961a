import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { showHost, wantedHost } from '@contract/hosts'
import { accessTo } from '../access/access'
import type { Platform } from '../platform'
import { hostService } from './service'

const byId = z.object({ id: z.uuid() })
const answer = { 200: showHost }

export const hostRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const hosts = hostService(platform)

    app.get('/shows/:id/host', { ...accessTo('show', 'look'), schema: { params: byId, response: answer } }, request =>
      hosts.get(request.scope),
    )
    app.put(
      '/shows/:id/host',
      { ...accessTo('show', 'keep'), schema: { params: byId, body: wantedHost, response: answer } },
      request => hosts.claim(request.scope, request.body),
    )
    app.post(
      '/shows/:id/host/prove',
      { ...accessTo('show', 'keep'), schema: { params: byId, response: answer } },
      request => hosts.prove(request.scope),
    )
    app.delete(
      '/shows/:id/host',
      { ...accessTo('show', 'keep'), schema: { params: byId, response: answer } },
      request => hosts.leave(request.scope),
    )
  }
