import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { feedCheck, feedChecked, feedComparison, feedOverview } from '@contract/feed'
import { showChange } from '@contract/shows'
import { accessTo, signedIn } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { untilGone } from '../../platform/untilGone'
import { checkingService } from './service'

const byId = z.object({ id: z.uuid() })

export const checkingRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const checking = checkingService(platform)

    app.get(
      '/shows/:id/feed',
      { ...accessTo('show', 'read'), schema: { params: byId, response: { 200: feedOverview } } },
      request => checking.overview(request.scope),
    )
    app.get(
      '/shows/:id/feed/states/:state',
      {
        ...accessTo('show', 'read'),
        schema: { params: byId.extend({ state: z.uuid() }), response: { 200: feedComparison } },
      },
      request => checking.stateOf(request.scope, request.params.state),
    )
    app.post(
      '/shows/:id/feed/outlook',
      { ...accessTo('show', 'make'), schema: { params: byId, body: showChange, response: { 200: feedComparison } } },
      request => checking.outlook(request.scope, request.body),
    )
    app.post(
      '/feed-checks',
      { ...signedIn, bodyLimit: 12_000_000, schema: { body: feedCheck, response: { 200: feedChecked } } },
      (request, reply) => checking.check(request.body, request.account.id, untilGone(reply)),
    )
  }
