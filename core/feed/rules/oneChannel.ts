import { all } from '../read'
import type { FeedRule } from './rule'

export const oneChannel: FeedRule = {
  name: 'one-channel',
  severity: 'error',
  says: 'It has not exactly one channel.',
  rule: 'An rss element contains exactly one channel.',
  source: 'RSS 2.0, “Subordinate to the rss element is a single channel element”',
  ifItStays: 'Apps read the first, or none.',
  fix: 'Put everything into one channel.',
  place: 'host',
  find: ({ feed: { document } }) => {
    if (document.fault || document.root?.name !== 'rss') return []
    const channels = all(document.root, 'channel').length
    return channels === 1 ? [] : [{ item: null, value: `${channels} channels` }]
  },
}
