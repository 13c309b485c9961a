import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { newOwnPage, ownPageChange, ownPageList } from '@contract/ownPages'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { ownPageService } from './service'

const byId = z.object({ id: z.uuid() })
const answer = { 200: ownPageList }

export const ownPageRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const pages = ownPageService(platform)

    app.get('/shows/:id/pages', { ...accessTo('show', 'read'), schema: { params: byId, response: answer } }, request =>
      pages.list(request.scope),
    )
    app.post(
      '/shows/:id/pages',
      { ...accessTo('show', 'make'), schema: { params: byId, body: newOwnPage, response: answer } },
      request => pages.create(request.scope, request.body),
    )
    app.put(
      '/pages/:id',
      { ...accessTo('page', 'make'), schema: { params: byId, body: ownPageChange, response: answer } },
      request => pages.change(request.scope, request.body),
    )
    app.delete('/pages/:id', { ...accessTo('page', 'make'), schema: { params: byId, response: answer } }, request =>
      pages.remove(request.scope),
    )
  }
