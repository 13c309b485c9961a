import type { FastifyReply } from 'fastify'
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { credentials, newAccount, type Session, session } from '@contract/session'
import { z } from 'zod'
import type { Platform } from '../../platform/platform'
import { accountService, sessionCookie, sessionMs } from './service'

export const accountRoutes =
  (platform: Platform): FastifyPluginAsyncZod =>
  async app => {
    const accounts = accountService(platform)
    const { configuration } = platform

    const keep = (reply: FastifyReply, token: string): FastifyReply =>
      reply.setCookie(sessionCookie, token, {
        path: '/',
        httpOnly: true,
        sameSite: 'lax',
        secure: configuration.publicUrl.startsWith('https:'),
        maxAge: sessionMs / 1000,
      })

    const demo = (): Session['demo'] => {
      const { listenerUrl, outboxUrl, canMoveClock } = configuration
      if (!listenerUrl && !outboxUrl && !canMoveClock) return null
      const clockOffsetMs = canMoveClock ? +platform.clock.now() - Date.now() : null
      return { listenerAddress: listenerUrl, outboxAddress: outboxUrl, clockOffsetMs }
    }

    app.get('/session', { schema: { response: { 200: session } } }, async request => {
      const token = request.cookies[sessionCookie]
      const account = token ? await accounts.accountOf(token) : null
      return {
        firstVisit: !account && (await accounts.isFirstVisit()),
        account: account && { id: account.id, email: account.email },
        maxUploadBytes: configuration.maxUploadBytes,
        // Where services stand is nothing for whoever passes by.
        transcriptionHost: account && configuration.transcriptionUrl && new URL(configuration.transcriptionUrl).host,
        demo: demo(),
      }
    })

    app.post('/session', { schema: { body: credentials, response: { 204: z.null() } } }, async (request, reply) => {
      const token = await accounts.signIn(request.body, request.ip)
      return keep(reply, token).code(204).send(null)
    })

    app.post('/accounts', { schema: { body: newAccount, response: { 204: z.null() } } }, async (request, reply) => {
      const token = await accounts.createFirst(request.body)
      return keep(reply, token).code(204).send(null)
    })

    app.delete('/session', { schema: { response: { 204: z.null() } } }, async (request, reply) => {
      const token = request.cookies[sessionCookie]
      if (token) await accounts.signOut(token)
      return reply.clearCookie(sessionCookie, { path: '/' }).code(204).send(null)
    })
  }
