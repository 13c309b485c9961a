import { type FeedRule, inChannel } from './rule'

export const anyItems: FeedRule = {
  name: 'any-items',
  severity: 'error',
  says: 'It has no episode.',
  rule: 'A directory wants at least one released episode.',
  source: 'common practice, no source',
  ifItStays: 'Directories refuse the show.',
  fix: 'Release the first episode.',
  place: 'episode.moment',
  find: inChannel((_channel, { feed }) => (feed.items.length > 0 ? null : '')),
}
