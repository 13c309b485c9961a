import type { FeedRule } from './rule'

export const secureAddress: FeedRule = {
  name: 'secure-address',
  severity: 'warning',
  says: 'It is served without encryption.',
  rule: 'A feed has an address with https.',
  source: 'itunes namespace, requirements (from memory); RFC 9110, section 4.2.2',
  ifItStays: 'Anybody on the way can change it; some directories refuse it.',
  fix: 'Serve it over https, and redirect the old address there.',
  place: 'host',
  find: ({ address }) =>
    address && /^http:\/\/(?!127\.|localhost\b|\[::1\])/i.test(address) ? [{ item: null, value: address }] : [],
}
