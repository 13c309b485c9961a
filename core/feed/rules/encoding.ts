import type { FeedRule } from './rule'

export const encoding: FeedRule = {
  name: 'encoding',
  severity: 'error',
  says: 'It is written or served in another encoding than it says.',
  rule: 'A document says in which encoding it is written and served, and is.',
  source: 'XML 1.0, section 4.3.3; RFC 7303, section 3',
  ifItStays: 'Letters outside a to z come out wrong, or the feed is refused.',
  fix: 'The server should send it as UTF-8 and say so.',
  place: 'host',
  find: ({ encodingFault }) => (encodingFault ? [{ item: null, value: encodingFault }] : []),
}
