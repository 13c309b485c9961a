import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { episode, release, versioned } from '@contract/episodes'
import { slotList, slotQuery } from '@contract/rhythm'
import { accessTo } from '../access/access'
import type { Platform } from '../platform'
import { remoteService } from '../remote/service'
import { untilGone } from '../untilGone'
import { releaseService } from './service'
import { nextSlots } from './slots'

const byId = z.object({ id: z.uuid() })

export const releaseRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const releases = releaseService(platform)
    const remote = remoteService(platform)
    const answer = { 200: episode }

    app.get(
      '/shows/:id/slots',
      {
        ...accessTo('show', 'look'),
        schema: { params: byId, querystring: slotQuery, response: { 200: slotList } },
      },
      request => nextSlots(request.scope, platform.clock, request.query.count),
    )

    app.post(
      '/episodes/:id/release',
      { ...accessTo('episode', 'make'), schema: { params: byId, body: release, response: answer } },
      async (request, reply) => {
        await remote.needReachable(request.scope, untilGone(reply))
        return releases.release(request.scope, request.body)
      },
    )

    const steps = {
      unschedule: releases.unschedule,
      'send-changes': releases.sendChanges,
      retire: releases.retire,
      restore: releases.restore,
    }
    for (const [step, act] of Object.entries(steps)) {
      app.post(
        `/episodes/:id/${step}`,
        { ...accessTo('episode', 'make'), schema: { params: byId, body: versioned, response: answer } },
        request => act(request.scope, request.body),
      )
    }
  }
