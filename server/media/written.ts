import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import type { FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../errors'
import { precondition } from './conditions'
import { acceptedEncoding, type Encoding } from './encodings'

/** An answer in one encoding, with its tag. */
interface Variant {
  body: Buffer
  etag: string
}

/** An answer that is written once for each change of what it tells, as it is sent. */
export interface Written {
  type: string
  lastModified: Date
  variants: Readonly<Record<Encoding, Variant>>
}

/** Writes an answer in every encoding. */
export async function written(type: string, words: string, lastModified: Date): Promise<Written> {
  const body = Buffer.from(words)
  const [gzipped, brotlied] = await Promise.all([
    promisify(gzip)(body),
    promisify(brotliCompress)(body, { params: { [constants.BROTLI_PARAM_QUALITY]: 6 } }),
  ])
  const digest = createHash('sha256').update(body).digest('base64url').slice(0, 27)
  return {
    type,
    lastModified,
    // RFC 9110 section 8.8.3.3: a strong entity tag differs between the encodings of one content.
    variants: {
      identity: { body, etag: `"${digest}"` },
      gzip: { body: gzipped, etag: `"${digest}-gzip"` },
      br: { body: brotlied, etag: `"${digest}-br"` },
    },
  }
}

export const bytesOf = ({ variants }: Written): number => Object.values(variants).reduce((sum, { body }) => sum + body.length, 2_000)

/** What is to be sent: status, headers and body, none for an answer without. */
export interface Sending {
  status: 200 | 304 | 412
  headers: Record<string, string>
  body: Buffer | null
}

/** Answers a request with what is written, in the best encoding that it takes. Throws `not-acceptable` where it takes none. */
export function sendingOf(request: FastifyRequest, { type, lastModified, variants }: Written, now: Date): Sending {
  const encoding = acceptedEncoding(request.headers['accept-encoding'])
  if (!encoding) throw new AppError('not-acceptable', 'The answer comes as br, gzip or identity; the request takes none of them.')
  const { body, etag } = variants[encoding]
  const headers = {
    etag,
    // RFC 9110 section 8.8.2.1: a server MUST NOT generate a Last-Modified date that is later than the answer's own.
    'last-modified': (lastModified > now ? now : lastModified).toUTCString(),
    // Kept by whoever likes, and asked about each time: the copy that is shown is always the current one.
    'cache-control': 'public, no-cache',
    vary: 'accept-encoding',
  }
  const outcome = precondition(request.headers, { etag, lastModified })
  if (outcome !== 'pass') return { status: outcome, headers, body: null }
  return { status: 200, headers: { ...headers, 'content-type': type, ...(encoding !== 'identity' && { 'content-encoding': encoding }) }, body }
}

/** Sends it by the framework, with the headers that its hooks have set. */
export function sendWritten(request: FastifyRequest, reply: FastifyReply, what: Written, now: Date): FastifyReply {
  const { status, headers, body } = sendingOf(request, what, now)
  return reply.code(status).headers(headers).send(body ?? undefined)
}
