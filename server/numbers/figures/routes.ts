import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import {
  comparisonQuery,
  episodeComparison,
  episodeNumbers,
  listenerList,
  listenerQuery,
  newestNumbers,
  newMark,
  numbersFilter,
  showNumbers as showNumbersOf,
} from '@contract/numbers'
import { accessTo } from '../../people/access/access'
import type { Platform } from '../../platform/platform'
import { ageNumbers, comparison } from './ages'
import { numbersCsv } from './exported'
import { showNumbers } from './figures'
import { heard } from './heard'
import { listenersBehind } from './listeners'
import { addMark, removeMark } from './marks'

const byId = z.object({ id: z.uuid() })
const marks = z.object({ marks: showNumbersOf.shape.marks })

export const numbersRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const { database } = platform

    app.get(
      '/shows/:id/numbers',
      {
        ...accessTo('show', 'read'),
        schema: { params: byId, querystring: numbersFilter, response: { 200: showNumbersOf } },
      },
      request => showNumbers(platform, request.scope.showId, request.query),
    )
    app.get(
      '/shows/:id/numbers/export',
      {
        ...accessTo('show', 'read'),
        schema: { params: byId, querystring: numbersFilter.extend({ form: z.enum(['csv', 'json']).default('csv') }) },
      },
      async (request, reply) => {
        const { form, ...filter } = request.query
        const numbers = await showNumbers(platform, request.scope.showId, filter)
        return reply
          .type(form === 'csv' ? 'text/csv; charset=utf-8' : 'application/json; charset=utf-8')
          .header('content-disposition', `attachment; filename="numbers ${numbers.from} to ${numbers.to}.${form}"`)
          .send(form === 'csv' ? numbersCsv(numbers) : JSON.stringify(numbers))
      },
    )
    app.get(
      '/shows/:id/numbers/newest',
      { ...accessTo('show', 'read'), schema: { params: byId, response: { 200: newestNumbers } } },
      async request => ({ numbers: await ageNumbers(platform, request.scope.showId, null) }),
    )
    app.get(
      '/shows/:id/numbers/ages',
      {
        ...accessTo('show', 'read'),
        schema: { params: byId, querystring: comparisonQuery, response: { 200: episodeComparison } },
      },
      request => comparison(platform, request.scope.showId, request.query.episodes),
    )
    app.get(
      '/shows/:id/numbers/listeners',
      {
        ...accessTo('show', 'read'),
        schema: { params: byId, querystring: listenerQuery, response: { 200: listenerList } },
      },
      request => listenersBehind(platform, request.scope.showId, request.query),
    )
    app.get(
      '/episodes/:id/numbers',
      { ...accessTo('episode', 'read'), schema: { params: byId, response: { 200: episodeNumbers } } },
      async request => {
        const { showId, id } = request.scope
        const [numbers, heardOf] = await Promise.all([ageNumbers(platform, showId, id), heard(platform, id)])
        return { numbers, heard: heardOf }
      },
    )
    app.post(
      '/shows/:id/numbers/marks',
      { ...accessTo('show', 'write'), schema: { params: byId, body: newMark, response: { 200: marks } } },
      request => addMark(database, request.scope, request.body),
    )
    app.delete(
      '/marks/:id',
      { ...accessTo('mark', 'write'), schema: { params: byId, response: { 200: marks } } },
      request => removeMark(database, request.scope),
    )
  }
