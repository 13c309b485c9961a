import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { customDomain, wantedDomain } from '@contract/customDomains'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { customDomainService } from './service'

const byId = z.object({ id: z.uuid() })
const answer = { 200: customDomain }

export const customDomainRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const domains = customDomainService(platform)

    app.get(
      '/shows/:id/custom-domain',
      { ...accessTo('show', 'read'), schema: { params: byId, response: answer } },
      request => domains.get(request.scope),
    )
    app.put(
      '/shows/:id/custom-domain',
      { ...accessTo('show', 'keep'), schema: { params: byId, body: wantedDomain, response: answer } },
      request => domains.claim(request.scope, request.body),
    )
    app.post(
      '/shows/:id/custom-domain/prove',
      { ...accessTo('show', 'keep'), schema: { params: byId, response: answer } },
      request => domains.prove(request.scope),
    )
    app.delete(
      '/shows/:id/custom-domain',
      { ...accessTo('show', 'keep'), schema: { params: byId, response: answer } },
      request => domains.leave(request.scope),
    )
  }
