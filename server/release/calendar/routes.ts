import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { calendar, calendarAddress, calendarQuery } from '@contract/calendar'
import { signedIn } from '../../people/access/access'
import { AppError } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { calendarOf } from './service'
import { calendarSubscription } from './subscription'

export const calendarRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const subscription = calendarSubscription(platform)
    const answer = { 200: calendarAddress }

    app.get(
      '/calendar',
      { ...signedIn, schema: { querystring: calendarQuery, response: { 200: calendar } } },
      request => calendarOf(request.account.id, request.query, platform.clock),
    )
    app.get('/calendar-address', { ...signedIn, schema: { response: answer } }, async request => ({
      address: await subscription.address(request.account.id),
    }))
    app.post('/calendar-address', { ...signedIn, schema: { response: answer } }, async request => ({
      address: await subscription.renew(request.account.id),
    }))
    app.delete('/calendar-address', { ...signedIn, schema: { response: answer } }, async request => ({
      address: await subscription.drop(request.account.id),
    }))
    // Whoever has the address may read: calendars do not sign in.
    app.get(
      '/calendar/:secret.ics',
      { config: { access: 'anyone' }, schema: { params: z.object({ secret: z.string().max(100) }), hide: true } },
      async (request, reply) => {
        const { secret } = request.params
        const text = /^[\w-]{43}$/.test(secret) ? await subscription.calendar(secret) : null
        if (text === null)
          throw new AppError('not-found', 'There is no calendar at this address; it may have another by now.')
        return reply.type('text/calendar; charset=utf-8').send(text)
      },
    )
  }
