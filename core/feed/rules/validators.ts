import { type FeedRule, inAnswer } from './rule'

export const validators: FeedRule = {
  name: 'validators',
  severity: 'warning',
  says: 'It does not say by what readers know that it has not changed.',
  rule: 'An answer has an ETag or a Last-Modified.',
  source: 'RFC 9110, section 8.8',
  ifItStays: 'Every reader fetches all of it every time.',
  fix: 'The server should send them.',
  place: 'host',
  find: inAnswer(({ status, hasEtag, hasLastModified }) => (status !== 200 || hasEtag || hasLastModified ? null : '')),
}
