import { createHash } from 'node:crypto'
import type { IncomingMessage } from 'node:http'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import type { FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../http/errors'
import { precondition } from './conditions'
import { acceptedEncoding, type Encoding } from './encodings'
import { type Head, headersOf, headOf } from './head'

/** An answer in one encoding, with its tag and the headers of its answers. */
interface Variant {
  body: Buffer
  etag: string
  whole: Head
  notModified: Head
}

/** An answer that is written once for each change of what it tells, as it is sent. */
export interface Written {
  lastModified: Date
  variants: Readonly<Record<Encoding, Variant>>
}

/** What is sent, in each encoding. */
export type Encoded = Readonly<Record<Encoding, Buffer>>

/** Encodes what is to be sent in every encoding. */
export async function encoded(identity: Buffer): Promise<Encoded> {
  const [gzipped, br] = await Promise.all([
    promisify(gzip)(identity),
    promisify(brotliCompress)(identity, {
      params: { [constants.BROTLI_PARAM_QUALITY]: 5, [constants.BROTLI_PARAM_SIZE_HINT]: identity.length },
    }),
  ])
  return { identity, gzip: gzipped, br }
}

/** The digest of a content, from which its entity tags are made: 43 letters. */
export function digestOf(...parts: Buffer[]): string {
  const hash = createHash('sha256')
  for (const part of parts) hash.update(part)
  return hash.digest('base64url')
}

/** Writes an answer in every encoding; `also` are headers that each of its answers has. */
export async function written(
  type: string,
  words: string,
  lastModified: Date,
  also: Record<string, string> = {},
): Promise<Written> {
  const bodies = await encoded(Buffer.from(words))
  return writtenOf(type, bodies, digestOf(bodies.identity).slice(0, 27), lastModified, also)
}

/**
 * RFC 9110 section 15.4.5: what a 304 MUST have of the headers of a 200, and no other that tells of the content, which whoever
 * asks has; what a page's script needs to read it (Fetch standard, CORS check); and what every answer has.
 */
const guidesCaches = /^(etag|cache-control|vary|access-control-.*|x-content-type-options)$/

/** The same of what is encoded already; `tag` names the content, and no other. */
export function writtenOf(
  type: string,
  bodies: Encoded,
  tag: string,
  lastModified: Date,
  also: Record<string, string> = {},
): Written {
  const variant = (encoding: Encoding): Variant => {
    const body = bodies[encoding]
    // RFC 9110 section 8.8.3.3: a strong entity tag differs between the encodings of one content.
    const etag = encoding === 'identity' ? `"${tag}"` : `"${tag}-${encoding}"`
    const whole = {
      etag,
      'last-modified': lastModified.toUTCString(),
      // Kept by whoever likes, and asked about each time: the copy that is shown is always the current one.
      'cache-control': 'public, no-cache',
      vary: 'accept-encoding',
      ...also,
      'content-type': type,
      'content-length': String(body.length),
      ...(encoding !== 'identity' && { 'content-encoding': encoding }),
    }
    const notModified = Object.fromEntries(Object.entries(whole).filter(([name]) => guidesCaches.test(name)))
    return { body, etag, notModified: headOf(notModified), whole: headOf(whole) }
  }
  return { lastModified, variants: { identity: variant('identity'), gzip: variant('gzip'), br: variant('br') } }
}

export const bytesOf = ({ variants }: Written): number =>
  Object.values(variants).reduce((sum, { body }) => sum + body.length, 2_000)

/** What is to be sent: status, headers and body, none for an answer without. */
export interface Sending {
  status: 200 | 304 | 412
  head: Head
  body: Buffer | null
}

/** Answers a request with what is written, in the best encoding that it takes; null where it takes none. */
export function sendingOf(
  { headers }: Pick<IncomingMessage, 'headers'>,
  { lastModified, variants }: Written,
  now: Date,
): Sending | null {
  const encoding = acceptedEncoding(headers['accept-encoding'])
  if (!encoding) return null
  const { body, etag, whole, notModified } = variants[encoding]
  const outcome = precondition(headers, { etag, lastModified })
  const head = outcome === 'pass' ? whole : notModified
  return {
    status: outcome === 'pass' ? 200 : outcome,
    // RFC 9110 section 8.8.2.1: a server MUST NOT generate a Last-Modified date that is later than the answer's own.
    head:
      outcome === 'pass' && lastModified > now
        ? headOf({ ...headersOf(head), 'last-modified': now.toUTCString() })
        : head,
    body: outcome === 'pass' ? body : null,
  }
}

export const notAcceptable = (): AppError =>
  new AppError('not-acceptable', 'The answer comes as br, gzip or identity; the request takes none of them.')

/** Sends it by the framework, with the headers that its hooks have set. */
export function sendWritten(request: FastifyRequest, reply: FastifyReply, what: Written, now: Date): FastifyReply {
  const sending = sendingOf(request, what, now)
  if (!sending) throw notAcceptable()
  return reply
    .code(sending.status)
    .headers(headersOf(sending.head))
    .send(sending.body ?? undefined)
}
