import type { FastifyReply } from 'fastify'
import { AppError } from './http/errors'

/** A signal that is aborted when whoever asked has gone before the answer. */
export function untilGone(reply: FastifyReply): AbortSignal {
  const gone = new AbortController()
  reply.raw.once('close', () => {
    if (!reply.raw.writableFinished) gone.abort(new AppError('unreadable', 'The request was given up.'))
  })
  return gone.signal
}
