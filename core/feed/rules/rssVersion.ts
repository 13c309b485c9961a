import type { FeedRule } from './rule'

export const rssVersion: FeedRule = {
  name: 'rss-version',
  severity: 'error',
  says: 'It is no RSS 2.0.',
  rule: 'The outermost element is rss, with version 2.0.',
  source: 'RSS 2.0, “What is RSS?”',
  ifItStays: 'Directories do not take it for a feed.',
  fix: 'Give the address of the RSS feed of the show, not of its page or of another format.',
  place: 'host',
  find: ({ feed: { document } }) => {
    const { root } = document
    if (!root || (root.name === 'rss' && root.attributes.version === '2.0')) return []
    return [{ item: null, value: root.name === 'rss' ? `version ${root.attributes.version ?? '(none)'}` : root.name }]
  },
}
