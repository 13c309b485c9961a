import type { FastifyInstance } from 'fastify'
import type { Act } from '@core/access/roles'
import { accountService, sessionCookie } from '../accounts/service'
import type { Account } from '../accounts/models'
import { AppError } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { type Scope, scopeOf, type Thing } from './scope'

/** Whom a route lets in: anyone, whoever is signed in, or who may do an act in the show of what its address names. */
export type Access = 'anyone' | 'signed in' | { of: Thing; may: Act; parameter: string }

declare module 'fastify' {
  interface FastifyContextConfig {
    access?: Access
  }
  interface FastifyRequest {
    /** Whoever is signed in; there on every route that does not let anyone in. */
    account: Account
    /** What the address names, and its show; there on every route that declares of what. */
    scope: Scope
  }
}

/** The configuration of a route that is about something in a show; `parameter` is the part of the address with its id. */
export const accessTo = (of: Thing, may: Act, parameter = 'id') => ({
  config: { access: { of, may, parameter } as const },
})
export const signedIn = { config: { access: 'signed in' } } as const

/** Lets anyone in to all routes of this part that say nothing else. */
export function letAnyoneIn(app: FastifyInstance): void {
  app.addHook('onRoute', route => {
    route.config = { access: 'anyone', ...route.config }
  })
}

/** Keeps the routes of this part to those whom they declare; one that declares nothing lets nobody in. */
export function guard(app: FastifyInstance, { database, clock }: Pick<Platform, 'database' | 'clock'>): void {
  const accounts = accountService({ database, clock })
  app.decorateRequest('account')
  app.decorateRequest('scope')
  app.addHook('onRequest', async request => {
    if (request.is404) return
    const { access } = request.routeOptions.config
    if (access === 'anyone') return
    const token = request.cookies[sessionCookie]
    const account = token ? await accounts.accountOf(token) : null
    if (!account) throw new AppError('sign-in-needed', 'This needs a signed-in session.')
    request.account = account
    if (access === 'signed in') return
    if (!access) throw new AppError('internal', 'This address does not say whom it lets in.')
    const id = (request.params as Record<string, string>)[access.parameter] ?? ''
    request.scope = await scopeOf(database, account.id, access.of, id, access.may)
  })
}
