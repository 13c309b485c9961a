import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { episode, redating, release, retirement, versioned } from '@contract/episodes'
import { slotList, slotQuery } from '@contract/rhythm'
import { orderFindings } from '@contract/order'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { remoteService } from '../../production/remote/service'
import { untilGone } from '../../platform/untilGone'
import { orderOf } from './order'
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
        ...accessTo('show', 'read'),
        schema: { params: byId, querystring: slotQuery, response: { 200: slotList } },
      },
      request => nextSlots(request.scope, platform.clock, request.query.count),
    )

    app.get(
      '/shows/:id/order',
      { ...accessTo('show', 'read'), schema: { params: byId, response: { 200: orderFindings } } },
      request => orderOf(request.scope),
    )

    app.post(
      '/episodes/:id/release',
      { ...accessTo('episode', 'make'), schema: { params: byId, body: release, response: answer } },
      async (request, reply) => {
        await remote.needReachable(request.scope, untilGone(reply))
        return releases.release(request.scope, request.body)
      },
    )

    app.post(
      '/episodes/:id/redate',
      { ...accessTo('episode', 'make'), schema: { params: byId, body: redating, response: answer } },
      request => releases.redate(request.scope, request.body),
    )
    app.post(
      '/episodes/:id/retire',
      { ...accessTo('episode', 'make'), schema: { params: byId, body: retirement, response: answer } },
      request => releases.retire(request.scope, request.body),
    )

    const steps = {
      unschedule: releases.unschedule,
      'send-changes': releases.sendChanges,
      'drop-end': releases.dropEnd,
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
