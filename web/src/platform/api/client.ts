import type { Problem } from '@contract/problem'
import { t } from './messages'

/** An answer that says why not. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** No answer came: the line is cut, or the server is away. Worth trying again. */
export class NoAnswer extends Error {}

/** Whether what was thrown will pass by itself, so that trying again later is right. */
export const passes = (error: unknown): boolean =>
  error instanceof NoAnswer || (error instanceof ApiError && error.problem.status >= 500)

const isAnswered = (error: unknown, status: number): boolean =>
  error instanceof ApiError && error.problem.status === status
/** Whether what was asked for is not there. */
export const isMissing = (error: unknown): boolean => isAnswered(error, 404)
/** Whether the session has run out, so that what was sent waits for a sign-in. */
export const isSignedOut = (error: unknown): boolean => isAnswered(error, 401)

let onSignedOut: () => void = () => undefined
/** Says what to do when the server finds the session has run out. */
export const whenSignedOut = (act: () => void): void => {
  onSignedOut = act
}

const timeoutMs = 15_000
/** The server asks another one meanwhile, or changes thousands. */
const askingMs = 60_000

/** Sends a request to the API and answers what comes back. Throws ApiError or NoAnswer. */
export async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<T> {
  return answerOf<T>(await send(method, path, body, headers))
}

function send(method: string, path: string, body: unknown, headers: Record<string, string>): Promise<Response> {
  const isBlob = body instanceof Blob
  return fetch(`/api/v1${path}`, {
    method,
    headers: { ...(body !== undefined && !isBlob && { 'content-type': 'application/json' }), ...headers },
    body: body === undefined || isBlob ? (body as Blob | undefined) : JSON.stringify(body),
    signal: AbortSignal.timeout(
      isBlob ? timeoutMs * 8 : /\/(address|release|bulk-edits|undo|feed-checks)$/.test(path) ? askingMs : timeoutMs,
    ),
  }).catch(() => {
    throw new NoAnswer(t('serverSilent'))
  })
}

async function answerOf<T>(response: Response): Promise<T> {
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T
  const problem = (await response.json().catch(() => null)) as Problem | null
  if (!problem) throw new NoAnswer(t('serverOdd'))
  if (problem.code === 'sign-in-needed') onSignedOut()
  throw new ApiError(problem)
}
