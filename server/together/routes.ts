import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import {
  togetherChange,
  togetherDone,
  togetherLook,
  togetherMade,
  togetherOutlook,
  togetherTakeBack,
  togetherTakenBack,
} from '@contract/together'
import { accessTo } from '../access/access'
import type { Platform } from '../platform'
import { togetherService } from './service'

const byId = z.object({ id: z.uuid() })
/** Five thousand episodes with their versions. */
const bodyLimit = 2_000_000

export const togetherRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const together = togetherService(platform)

    app.post(
      '/shows/:id/together/look',
      {
        ...accessTo('show', 'write'),
        schema: { params: byId, body: togetherLook, response: { 200: togetherOutlook } },
        bodyLimit,
      },
      request => together.look(request.scope, request.body),
    )
    app.post(
      '/shows/:id/together',
      {
        ...accessTo('show', 'write'),
        schema: { params: byId, body: togetherChange, response: { 200: togetherDone } },
        bodyLimit,
      },
      request => together.change(request.scope, request.body),
    )
    app.get(
      '/shows/:id/together',
      { ...accessTo('show', 'look'), schema: { params: byId, response: { 200: togetherMade } } },
      request => together.made(request.scope),
    )
    app.post(
      '/shows/:id/together/:changeId/take-back',
      {
        ...accessTo('show', 'write'),
        schema: {
          params: byId.extend({ changeId: z.uuid() }),
          body: togetherTakeBack.nullish(),
          response: { 200: togetherTakenBack },
        },
      },
      request => together.takeBack(request.scope, request.params.changeId, request.body?.episodes),
    )
  }
