import { type FeedRule, inAnswer } from './rule'

const mostSeconds = 3600

export const caching: FeedRule = {
  name: 'caching',
  severity: 'warning',
  says: 'It may be kept for so long that a release is seen late.',
  rule: 'Cache-Control lets a feed be kept for an hour at most.',
  source: 'RFC 9111, section 5.2.2.1; common practice, no source',
  ifItStays: 'A new episode shows only when the kept copy has run out.',
  fix: 'The server should send no-cache, or a short max-age.',
  place: 'host',
  find: inAnswer(({ cacheControl }) => {
    const seconds = Number(/(?:s-maxage|max-age)=(\d+)/i.exec(cacheControl)?.[1] ?? 0)
    return seconds > mostSeconds && !/no-cache/i.test(cacheControl) ? cacheControl : null
  }),
}
