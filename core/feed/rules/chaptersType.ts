import { type FeedRule, inEach } from './rule'

export const chaptersType: FeedRule = {
  name: 'chapters-type',
  severity: 'warning',
  says: 'The file of chapters has no address, or not its type.',
  rule: 'podcast:chapters has url and type, application/json+chapters.',
  source: 'podcast namespace, chapters',
  ifItStays: 'Apps show no chapters.',
  fix: 'Add it to the feed.',
  place: 'host',
  find: inEach('podcast:chapters', ({ attributes: { url = '', type = '' } }) =>
    url !== '' && /^application\/(json\+chapters|json)$/i.test(type) ? null : `${type} ${url}`.trim(),
  ),
}
