import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { comment, commentChange, commentList, commentListQuery, commentsOpen } from '@contract/comments'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { commentService } from './service'

const byId = z.object({ id: z.uuid() })

export const commentRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const comments = commentService(platform)

    app.get(
      '/shows/:id/comments',
      {
        ...accessTo('show', 'read'),
        schema: { params: byId, querystring: commentListQuery, response: { 200: commentList } },
      },
      request => comments.list(request.scope, request.query),
    )
    app.put(
      '/shows/:id/comments',
      { ...accessTo('show', 'make'), schema: { params: byId, body: commentsOpen, response: { 200: commentList } } },
      request => comments.open(request.scope, request.body.takesComments),
    )
    app.get(
      '/shows/:id/comments.csv',
      { ...accessTo('show', 'read'), schema: { params: byId, response: { 200: z.string() } } },
      async (request, reply) =>
        reply
          .type('text/csv; charset=utf-8')
          .header('content-disposition', 'attachment; filename="comments.csv"')
          .send(await comments.asTable(request.scope)),
    )
    app.patch(
      '/comments/:id',
      { ...accessTo('comment', 'make'), schema: { params: byId, body: commentChange, response: { 200: comment } } },
      request => comments.change(request.scope, request.body),
    )
  }
