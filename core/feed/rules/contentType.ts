import { type FeedRule, inAnswer } from './rule'

export const contentType: FeedRule = {
  name: 'content-type',
  severity: 'warning',
  says: 'It is not served as a feed.',
  rule: 'A feed is served as application/rss+xml, application/xml or text/xml.',
  source: 'RSS Advisory Board, MIME type; RFC 7303, section 4.2',
  ifItStays: 'Careful readers take it for a page.',
  fix: 'The server should send its type.',
  place: 'host',
  find: inAnswer(({ contentType, status }) =>
    status !== 200 || /^(application\/(rss\+xml|xml)|text\/xml)\b/i.test(contentType) ? null : contentType,
  ),
}
