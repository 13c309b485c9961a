import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { newStrand, strandChange, strandChoice, strandList } from '@contract/strands'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { strandService } from './service'

const byId = z.object({ id: z.uuid() })

export const strandRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const strands = strandService(platform)
    const answer = { 200: strandList }

    app.get(
      '/shows/:id/strands',
      { ...accessTo('show', 'read'), schema: { params: byId, response: answer } },
      request => strands.list(request.scope),
    )
    app.post(
      '/shows/:id/strands',
      { ...accessTo('show', 'make'), schema: { params: byId, body: newStrand, response: answer } },
      request => strands.create(request.scope, request.body),
    )
    app.put(
      '/strands/:id',
      { ...accessTo('strand', 'make'), schema: { params: byId, body: strandChange, response: answer } },
      request => strands.change(request.scope, request.body),
    )
    app.put(
      '/strands/:id/episodes',
      { ...accessTo('strand', 'make'), schema: { params: byId, body: strandChoice, response: answer } },
      request => strands.choose(request.scope, request.body.episodeIds),
    )
    app.delete('/strands/:id', { ...accessTo('strand', 'make'), schema: { params: byId, response: answer } }, request =>
      strands.remove(request.scope),
    )
  }
