import type { FastifyReply, FastifyRequest } from 'fastify'
import { precondition, rangeHolds } from './conditions'
import { readRange } from './range'
import type { MediaStore } from './store'

export interface Delivery {
  sha256: string
  bytes: number
  type: string
  lastModified: Date
  cacheControl: string
}

/** What is answered to a request for a file; of its bytes those from `start` to `end`, both included, or none. */
export interface Answer {
  status: 200 | 206 | 304 | 412 | 416
  headers: Record<string, string | number>
  part: { start: number; end: number } | null
}

/** The headers that every answer about a file has. */
export const fileHeaders = ({ sha256, lastModified, cacheControl }: Delivery) => ({
  etag: `"${sha256.slice(0, 32)}"`,
  'last-modified': lastModified.toUTCString(),
  'cache-control': cacheControl,
  'accept-ranges': 'bytes',
})

/** Answers as RFC 9110 asks: conditions, HEAD, single byte ranges, 416. `headers` are those of `fileHeaders`, and others that go along. */
export function answerTo(
  request: Pick<FastifyRequest, 'method' | 'headers'>,
  file: Pick<Delivery, 'bytes' | 'type' | 'lastModified'>,
  headers: Readonly<Record<string, string>>,
): Answer {
  const validators = { etag: headers.etag!, lastModified: file.lastModified }
  const outcome = precondition(request.headers, validators)
  if (outcome !== 'pass') return { status: outcome, headers, part: null }

  const range = wantedRange(request, file.bytes, rangeHolds(request.headers, validators))
  // Section 15.5.17: a 416 answer SHOULD name the current length.
  if (range === 'unsatisfiable')
    return { status: 416, headers: { ...headers, 'content-range': `bytes */${file.bytes}` }, part: null }
  const { start, end } = range ?? { start: 0, end: file.bytes - 1 }
  return {
    status: range ? 206 : 200,
    headers: {
      ...headers,
      'content-type': file.type,
      'content-length': end - start + 1,
      ...(range && { 'content-range': `bytes ${start}-${end}/${file.bytes}` }),
    },
    part: request.method === 'HEAD' ? null : { start, end },
  }
}

/** Sends a stored file; streamed, never whole in memory. */
export function deliver(request: FastifyRequest, reply: FastifyReply, store: MediaStore, file: Delivery): FastifyReply {
  const { status, headers, part } = answerTo(request, file, fileHeaders(file))
  return reply
    .code(status)
    .headers(headers)
    .send(part && store.read(file.sha256, part))
}

/** The one range to send; null for the whole file. Section 14.2: Range is defined for GET only; several ranges may be ignored. */
function wantedRange(
  { method, headers: { range } }: Pick<FastifyRequest, 'method' | 'headers'>,
  bytes: number,
  holds: boolean,
): { start: number; end: number } | 'unsatisfiable' | null {
  return range && holds && method === 'GET' ? readRange(range, bytes) : null
}
