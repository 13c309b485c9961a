import type { FastifyInstance, FastifyRequest } from 'fastify'
import { AppError } from '../../platform/http/errors'

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
