import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { episode, versioned } from '@contract/episodes'
import { finishRequest, recipeChange } from '@contract/sound'
import type { Platform } from '../platform'
import { finishingService } from './service'

const byId = z.object({ id: z.uuid() })

export const finishingRoutes = (platform: Platform): FastifyPluginAsyncZod => async app => {
  const finishing = finishingService(platform)
  const answer = { 200: episode }

  app.put('/episodes/:id/recipe', { schema: { params: byId, body: recipeChange, response: answer } }, request =>
    finishing.setRecipe(request.params.id, request.body.version, request.body.recipe))
  app.post('/episodes/:id/finish', { schema: { params: byId, body: finishRequest, response: answer } }, request =>
    finishing.begin(request.params.id, request.body.version, request.body.recipe))
  app.post('/episodes/:id/cancel-finish', { schema: { params: byId, body: versioned, response: answer } }, request =>
    finishing.cancel(request.params.id, request.body.version))
}
