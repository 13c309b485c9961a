import type { FastifyInstance } from 'fastify'
import { AppError, shown } from './errors'
import type { KnownAddresses } from './knownAddresses'
import { sendProblem } from './problems'
import { redirect } from './redirect'

/** Answers where no route is: leads from a public page's address with a slash behind it to the one without, else says what would be taken there. */
export function missingAddress(app: FastifyInstance, known: KnownAddresses, publicUrl: string): void {
  app.setNotFoundHandler((request, reply) => {
    const [path = '/', query] = request.url.split(/\?(.*)/s)
    const reads = request.method === 'GET' || request.method === 'HEAD'
    if (reads && /^\/[^/].*[^/]\/$/.test(path) && known.patternAt(path.slice(0, -1))?.startsWith('/:show')) {
      return redirect(reply, `${publicUrl}${path.slice(0, -1)}${query ? `?${query}` : ''}`)
    }
    const methods = known.methodsAt(path)
    if (methods.length === 0)
      return sendProblem(reply, new AppError('not-found', `Nothing is at ${shown(request.url)}.`))
    // RFC 9110 section 15.5.6: "The origin server MUST generate an Allow header field in a 405 response".
    reply.header('allow', methods.join(', '))
    return sendProblem(
      reply,
      new AppError('method-refused', `${shown(path)} takes ${methods.join(', ')}, not ${request.method}.`),
    )
  })
}
