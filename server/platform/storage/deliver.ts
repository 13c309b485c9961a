import type { IncomingMessage } from 'node:http'
import type { FastifyReply, FastifyRequest } from 'fastify'
import { type Head, headersOf, headOf } from './head'
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
  head: Head
  part: { start: number; end: number } | null
}

export const etagOf = (sha256: string): string => `"${sha256.slice(0, 32)}"`

/** The headers that every answer about a file has. */
export const fileHeaders = ({ sha256, lastModified, cacheControl }: Delivery) => ({
  etag: etagOf(sha256),
  'last-modified': lastModified.toUTCString(),
  'cache-control': cacheControl,
  'accept-ranges': 'bytes',
})

/** Answers as RFC 9110 asks: conditions, HEAD, single byte ranges, 416. `head` are the headers of `fileHeaders`, and others that go along. */
export function answerTo(
  request: Pick<IncomingMessage, 'method' | 'headers'>,
  { bytes, type, ...validators }: Pick<Delivery, 'bytes' | 'type' | 'lastModified'> & { etag: string },
  head: Head,
): Answer {
  const outcome = precondition(request.headers, validators)
  if (outcome !== 'pass') return { status: outcome, head, part: null }

  const range = wantedRange(request, bytes, rangeHolds(request.headers, validators))
  // Section 15.5.17: a 416 answer SHOULD name the current length.
  if (range === 'unsatisfiable')
    return { status: 416, head: [...head, 'content-range', `bytes */${bytes}`], part: null }
  const { start, end } = range ?? { start: 0, end: bytes - 1 }
  const whole = [...head, 'content-type', type, 'content-length', String(end - start + 1)]
  return {
    status: range ? 206 : 200,
    head: range ? [...whole, 'content-range', `bytes ${start}-${end}/${bytes}`] : whole,
    part: request.method === 'HEAD' ? null : { start, end },
  }
}

/** Sends a stored file; streamed, never whole in memory. */
export function deliver(request: FastifyRequest, reply: FastifyReply, store: MediaStore, file: Delivery): FastifyReply {
  const { status, head, part } = answerTo(request, { ...file, etag: etagOf(file.sha256) }, headOf(fileHeaders(file)))
  return reply
    .code(status)
    .headers(headersOf(head))
    .send(part && store.read(file.sha256, part))
}

/** The one range to send; null for the whole file. Section 14.2: Range is defined for GET only; several ranges may be ignored. */
function wantedRange(
  { method, headers: { range } }: Pick<IncomingMessage, 'method' | 'headers'>,
  bytes: number,
  holds: boolean,
): { start: number; end: number } | 'unsatisfiable' | null {
  return range && holds && method === 'GET' ? readRange(range, bytes) : null
}
