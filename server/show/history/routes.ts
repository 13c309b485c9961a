import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { aside, history, pastState, pastText } from '@contract/history'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { historyService } from './service'

export const historyRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const histories = historyService(platform)

    app.get(
      '/episodes/:id/history',
      { ...accessTo('episode', 'read'), schema: { params: z.object({ id: z.uuid() }), response: { 200: history } } },
      request => histories.list(request.scope),
    )
    app.get(
      '/episodes/:id/history/:stateId',
      {
        ...accessTo('episode', 'read'),
        schema: { params: z.object({ id: z.uuid(), stateId: z.uuid() }), response: { 200: pastText } },
      },
      request => histories.state(request.scope, request.params.stateId),
    )
    app.post(
      '/episodes/:id/history/aside',
      {
        ...accessTo('episode', 'write'),
        schema: { params: z.object({ id: z.uuid() }), body: aside, response: { 201: pastState } },
        bodyLimit: 2_000_000,
      },
      async (request, reply) => reply.code(201).send(await histories.keepAside(request.scope, request.body)),
    )
  }
