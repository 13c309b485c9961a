import type { FastifyError, FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod'
import type { Logger } from 'pino'
import { BaseError, ConnectionError, DatabaseError } from 'sequelize'
import { type Problem, problem } from '@contract/problem'
import { AppError, shown } from './errors'

/** Turns whatever was thrown into a problem answer; nothing of a stack, a path or SQL leaves the server. */
export function installProblems(app: FastifyInstance, log: Logger): void {
  app.setErrorHandler((error: FastifyError, request, reply) => sendProblem(reply, asAppError(error, request, log)))
}

/** The body of a problem answer. */
export function problemOf(error: AppError): Problem {
  return problem.parse({
    type: `urn:lake-letter:${error.code}`,
    code: error.code,
    title: error.title,
    status: error.status,
    detail: error.message,
    todo: error.todo,
    ...(error.faults && { faults: error.faults }),
    ...error.extension,
  })
}

/** Answers with a problem. */
export function sendProblem(reply: FastifyReply, error: AppError): FastifyReply {
  if (error.status === 503) reply.header('retry-after', '2')
  return reply
    .code(error.status)
    .type('application/problem+json')
    .send(JSON.stringify(problemOf(error)))
}

/** An error by its name, whatever was thrown; one of our own making is logged, and told without any of its words. */
export function asAppError(error: unknown, request: FastifyRequest | null, log: Logger): AppError {
  if (error instanceof AppError) return error
  if (hasZodFastifySchemaValidationErrors(error)) {
    const faults = error.validation.map(({ instancePath, message }) => {
      const field = instancePath.slice(1).replaceAll('/', '.')
      const value = field.endsWith('password')
        ? '(not shown)'
        : shown(valueAt(request!, error.validationContext, instancePath))
      return { field: field || '(whole)', value, rule: message ?? '' }
    })
    return new AppError('bad-input', faults.map(fault => `${fault.field}: ${fault.rule}`).join(' '), faults)
  }
  if (isDatabaseDown(error)) return new AppError('unavailable', 'The database does not answer at the moment.')
  const { statusCode, message, code } = error as FastifyError
  if (statusCode === 413) return new AppError('too-large', 'The request is larger than this address takes.')
  if (statusCode === 415)
    return new AppError('unsupported', `This address does not take ${shown(request?.headers['content-type'])}.`)
  if (statusCode && statusCode >= 400 && statusCode < 500) return new AppError('unreadable', message)
  if (code === 'ENOSPC') return new AppError('no-room', 'The disk is full.')
  log.error(error)
  return new AppError('internal', 'The server met an error it has no word for. It is in the server log.')
}

/** Whether an error says that the database is away, rather than that it refused something. */
export function isDatabaseDown(error: unknown): boolean {
  if (error instanceof ConnectionError) return true
  if (!(error instanceof BaseError) && !(error instanceof DatabaseError)) return false
  const { code } = ((error as DatabaseError).original ?? {}) as { code?: string }
  return /^(ER_SOCKET|ER_CONNECTION|ER_CMD_CONNECTION_CLOSED|ER_SERVER_SHUTDOWN|ER_GET_CONNECTION|ER_QUERY_INTERRUPTED|ECONN|EPIPE)/.test(
    code ?? '',
  )
}

function valueAt(request: FastifyRequest, context: string | undefined, path: string): unknown {
  const whole = context === 'querystring' ? request.query : context === 'params' ? request.params : request.body
  return path
    .split('/')
    .slice(1)
    .reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], whole)
}
