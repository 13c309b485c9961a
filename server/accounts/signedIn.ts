import type { FastifyInstance, FastifyRequest } from 'fastify'
import { AppError } from '../errors'
import type { Platform } from '../platform'
import { accountService } from './service'

export const sessionCookie = 'lake_letter'

/** Lets only signed-in requests pass to the routes of this scope. */
export function requireSignIn(app: FastifyInstance, platform: Platform): void {
  const accounts = accountService(platform)
  app.addHook('onRequest', async request => {
    const token = request.cookies[sessionCookie]
    if (!token || !await accounts.accountOf(token)) throw new AppError('sign-in-needed', 'This needs a signed-in session.')
  })
}

const changing = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])

/**
 * Refuses changes that a page of another site sent with the person's cookie, by the Origin header that browsers add
 * (OWASP CSRF prevention cheat sheet, verifying origin). Programs other than browsers send none.
 */
export function refuseForeignOrigins(app: FastifyInstance, publicUrl: string): void {
  const own = new URL(publicUrl).origin
  app.addHook('onRequest', async (request: FastifyRequest) => {
    const { origin } = request.headers
    if (changing.has(request.method) && origin && origin !== own) {
      throw new AppError('foreign-origin', `The request came from ${origin}; the studio lives at ${own}.`)
    }
  })
}
