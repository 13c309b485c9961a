import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { mixTaken, sound } from '@contract/sound'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { mixingService } from './service'

export const mixingRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const mixing = mixingService(platform)

    app.put(
      '/episodes/:id/mix/taken',
      {
        ...accessTo('episode', 'make'),
        schema: { params: z.object({ id: z.uuid() }), body: mixTaken, response: { 200: sound } },
      },
      request => mixing.take(request.scope, request.body),
    )
  }
