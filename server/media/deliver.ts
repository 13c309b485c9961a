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

/** Sends a stored file as RFC 9110 asks: conditions, HEAD, single byte ranges, 416; streamed, never whole in memory. */
export function deliver(request: FastifyRequest, reply: FastifyReply, store: MediaStore, file: Delivery): FastifyReply {
  const validators = { etag: `"${file.sha256.slice(0, 32)}"`, lastModified: file.lastModified }
  reply.headers({
    etag: validators.etag,
    'last-modified': file.lastModified.toUTCString(),
    'cache-control': file.cacheControl,
    'accept-ranges': 'bytes',
  })
  const outcome = precondition(request.headers, validators)
  if (outcome !== 'pass') return reply.code(outcome).send()

  const range = wantedRange(request, file.bytes, rangeHolds(request.headers, validators))
  if (range === 'unsatisfiable') {
    // Section 15.5.17: a 416 answer SHOULD name the current length.
    return reply.code(416).header('content-range', `bytes */${file.bytes}`).send()
  }
  const { start, end } = range ?? { start: 0, end: file.bytes - 1 }
  if (range) reply.code(206).header('content-range', `bytes ${start}-${end}/${file.bytes}`)
  reply.header('content-length', end - start + 1).type(file.type)
  return reply.send(request.method === 'HEAD' ? null : store.read(file.sha256, { start, end }))
}

/** The one range to send; null for the whole file. Section 14.2: Range is defined for GET only; several ranges may be ignored. */
function wantedRange(request: FastifyRequest, bytes: number, holds: boolean): { start: number; end: number } | 'unsatisfiable' | null {
  const { range } = request.headers
  return range && holds && request.method === 'GET' ? readRange(range, bytes) : null
}
