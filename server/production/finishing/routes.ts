import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { versioned } from '@contract/episodes'
import { finishRequest, recipeChange, sound } from '@contract/sound'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { finishingService } from './service'

const byId = z.object({ id: z.uuid() })

export const finishingRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const finishing = finishingService(platform)
    const answer = { 200: sound }

    app.put(
      '/episodes/:id/recipe',
      { ...accessTo('episode', 'make'), schema: { params: byId, body: recipeChange, response: answer } },
      request => finishing.setRecipe(request.scope, request.body.version, request.body.recipe),
    )
    app.post(
      '/episodes/:id/finish',
      { ...accessTo('episode', 'make'), schema: { params: byId, body: finishRequest, response: answer } },
      request => finishing.begin(request.scope, request.body.version, request.body.recipe),
    )
    app.post(
      '/episodes/:id/cancel-finish',
      { ...accessTo('episode', 'make'), schema: { params: byId, body: versioned, response: answer } },
      request => finishing.cancel(request.scope, request.body.version),
    )
  }
