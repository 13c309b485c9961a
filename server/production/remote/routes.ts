import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { episode } from '@contract/episodes'
import { elsewhere } from '@contract/sound'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { untilGone } from '../../platform/untilGone'
import { remoteService } from './service'

export const remoteRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const remote = remoteService(platform)

    app.put(
      '/episodes/:id/address',
      {
        ...accessTo('episode', 'make'),
        schema: { params: z.object({ id: z.uuid() }), body: elsewhere, response: { 200: episode } },
      },
      (request, reply) => remote.bring(request.scope, request.body.address, untilGone(reply)),
    )
  }
