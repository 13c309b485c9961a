import { type FeedRule, inAnswer } from './rule'

const leastBytes = 100_000

export const compressed: FeedRule = {
  name: 'compressed',
  severity: 'note',
  says: 'It comes uncompressed to whoever would take it compressed.',
  rule: 'A large feed is sent as gzip or brotli where the reader takes that.',
  source: 'RFC 9110, section 8.4',
  ifItStays: 'Each look at it takes ten times the bytes.',
  fix: 'The server should compress it.',
  place: 'host',
  find: inAnswer(({ isCompressed, status }, { bytes }) =>
    status === 200 && !isCompressed && bytes > leastBytes ? `${bytes.toLocaleString('en')} bytes` : null,
  ),
}
