import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import {
  bulkEditRequest,
  bulkEditResult,
  bulkEditQuery,
  bulkEditHistory,
  bulkEditPreview,
  bulkEditUndo,
  bulkEditUndone,
} from '@contract/bulkEdits'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { bulkEditService } from './service'

const byId = z.object({ id: z.uuid() })
/** Five thousand episodes with their versions. */
const bodyLimit = 2_000_000

export const bulkEditRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const bulkEdits = bulkEditService(platform)

    app.post(
      '/shows/:id/bulk-edits/preview',
      {
        ...accessTo('show', 'write'),
        schema: { params: byId, body: bulkEditQuery, response: { 200: bulkEditPreview } },
        bodyLimit,
      },
      request => bulkEdits.look(request.scope, request.body),
    )
    app.post(
      '/shows/:id/bulk-edits',
      {
        ...accessTo('show', 'write'),
        schema: { params: byId, body: bulkEditRequest, response: { 200: bulkEditResult } },
        bodyLimit,
      },
      request => bulkEdits.change(request.scope, request.body),
    )
    app.get(
      '/shows/:id/bulk-edits',
      { ...accessTo('show', 'read'), schema: { params: byId, response: { 200: bulkEditHistory } } },
      request => bulkEdits.made(request.scope),
    )
    app.post(
      '/shows/:id/bulk-edits/:changeId/undo',
      {
        ...accessTo('show', 'write'),
        schema: {
          params: byId.extend({ changeId: z.uuid() }),
          body: bulkEditUndo.nullish(),
          response: { 200: bulkEditUndone },
        },
      },
      request => bulkEdits.takeBack(request.scope, request.params.changeId, request.body?.episodes),
    )
  }
