import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { transcriptDraft, wantedDraft } from '@contract/drafts'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { draftingService } from './service'

const byId = z.object({ id: z.uuid() })
const answer = { response: { 200: z.object({ draft: transcriptDraft.nullable() }) } }

export const draftRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const drafting = draftingService(platform)

    app.get(
      '/episodes/:id/draft',
      { ...accessTo('episode', 'read'), schema: { params: byId, ...answer } },
      async request => ({ draft: await drafting.get(request.scope) }),
    )
    app.post(
      '/episodes/:id/draft',
      { ...accessTo('episode', 'write'), schema: { params: byId, body: wantedDraft, ...answer } },
      async request => {
        await drafting.begin(request.scope, request.body.language)
        return { draft: await drafting.get(request.scope) }
      },
    )
    app.delete(
      '/episodes/:id/draft',
      { ...accessTo('episode', 'write'), schema: { params: byId } },
      async (request, reply) => {
        await drafting.stop(request.scope)
        return reply.code(204).send()
      },
    )
  }
