import { all } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showCategory: FeedRule = {
  name: 'show-category',
  severity: 'error',
  says: 'The show has no category.',
  rule: 'A channel has an itunes:category.',
  source: 'itunes namespace, required tags (from memory)',
  ifItStays: 'Directories refuse it.',
  fix: 'Choose a category.',
  place: 'show.category',
  find: inChannel(channel => (all(channel, 'itunes:category').length > 0 ? null : '')),
}
