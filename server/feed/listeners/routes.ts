import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { listenerList, newListeners } from '@contract/listeners'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { listenerService } from './service'

const byId = z.object({ id: z.uuid() })

export const listenerRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const listeners = listenerService(platform)
    const answer = { 200: listenerList }
    const ofOne = { ...accessTo('listener', 'make'), schema: { params: byId, response: answer } }

    app.get(
      '/shows/:id/listeners',
      { ...accessTo('show', 'make'), schema: { params: byId, response: answer } },
      request => listeners.list(request.scope),
    )
    app.post(
      '/shows/:id/listeners',
      { ...accessTo('show', 'make'), schema: { params: byId, body: newListeners, response: answer } },
      request => listeners.add(request.scope, request.body),
    )
    app.post('/listeners/:id/renewal', ofOne, request => listeners.renew(request.scope))
    app.post('/listeners/:id/withdrawal', ofOne, request => listeners.withdraw(request.scope))
    app.post('/listeners/:id/restoration', ofOne, request => listeners.restore(request.scope))
  }
