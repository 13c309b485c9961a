import type { FastifyReply } from 'fastify'

/**
 * What lets web pages of other sites play sound and read feeds (Fetch standard, CORS protocol): which headers they may
 * send, and which of the answer they may read.
 */
export const publicAccess = {
  'access-control-allow-origin': '*',
  'access-control-expose-headers': 'accept-ranges, content-length, content-range, etag, last-modified',
  'cross-origin-resource-policy': 'cross-origin',
} as const

/** Answers a browser that asks before it asks. */
export function preflight(reply: FastifyReply): FastifyReply {
  return reply
    .code(204)
    .headers({
      ...publicAccess,
      allow: 'GET, HEAD, OPTIONS',
      'access-control-allow-methods': 'GET, HEAD',
      'access-control-allow-headers':
        'range, if-range, if-match, if-none-match, if-modified-since, if-unmodified-since, cache-control, accept',
      'access-control-max-age': '86400',
    })
    .send()
}
