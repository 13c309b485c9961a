import type { FeedRule } from './rule'

export const noDoctype: FeedRule = {
  name: 'no-doctype',
  severity: 'warning',
  says: 'It has a document type.',
  rule: 'A feed needs no document type, and careful readers refuse what one declares.',
  source: 'OWASP XML External Entity Prevention cheat sheet; common practice, no source',
  ifItStays: 'Some readers refuse the feed as a whole.',
  fix: 'Leave <!DOCTYPE …> out.',
  place: 'host',
  find: ({ feed: { document } }) => (document.hasDoctype ? [{ item: null, value: '' }] : []),
}
