import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import {
  episode,
  episodeChange,
  episodePage,
  episodesNear,
  listQuery,
  newEpisode,
  vocabulary,
  savedText,
} from '@contract/episodes'
import { sound } from '@contract/sound'
import { tablePage, tableQuery } from '@contract/table'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { episodeLists } from './lists'
import { episodeService } from './service'
import { episodeTable } from './table'
import { vocabularyOf } from './vocabulary'

const byId = z.object({ id: z.uuid() })

export const episodeRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const episodes = episodeService(platform)
    const table = episodeTable(platform.database)

    app.get(
      '/shows/:id/episodes',
      { ...accessTo('show', 'read'), schema: { params: byId, querystring: listQuery, response: { 200: episodePage } } },
      request => episodeLists.page(request.scope, request.query),
    )
    app.get(
      '/shows/:id/episodes/near',
      { ...accessTo('show', 'read'), schema: { params: byId, response: { 200: episodesNear } } },
      request => episodeLists.near(request.scope),
    )
    app.get(
      '/shows/:id/episodes/table',
      { ...accessTo('show', 'read'), schema: { params: byId, querystring: tableQuery, response: { 200: tablePage } } },
      request => table.page(request.scope, request.query),
    )
    app.get(
      '/shows/:id/vocabulary',
      { ...accessTo('show', 'read'), schema: { params: byId, response: { 200: vocabulary } } },
      request => vocabularyOf(platform.database, request.scope),
    )
    app.post(
      '/shows/:id/episodes',
      { ...accessTo('show', 'write'), schema: { params: byId, body: newEpisode, response: { 201: episode } } },
      async (request, reply) => reply.code(201).send(await episodes.create(request.scope, request.body)),
    )
    app.get(
      '/episodes/:id',
      { ...accessTo('episode', 'read'), schema: { params: byId, response: { 200: episode } } },
      request => episodes.get(request.scope),
    )
    app.get(
      '/episodes/:id/sound',
      { ...accessTo('episode', 'read'), schema: { params: byId, response: { 200: sound } } },
      request => episodes.sound(request.scope),
    )
    app.patch(
      '/episodes/:id',
      {
        ...accessTo('episode', 'write'),
        schema: { params: byId, body: episodeChange, response: { 200: savedText } },
        bodyLimit: 2_000_000,
      },
      request => episodes.change(request.scope, request.body),
    )
    app.delete(
      '/episodes/:id',
      { ...accessTo('episode', 'make'), schema: { params: byId, response: { 204: z.null() } } },
      async (request, reply) => {
        await episodes.remove(request.scope)
        return reply.code(204).send(null)
      },
    )
    app.post(
      '/episodes/:id/restoration',
      { ...accessTo('episode', 'make'), schema: { params: byId, response: { 200: episode } } },
      request => episodes.restore(request.scope),
    )
  }
