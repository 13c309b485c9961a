import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showTitle: FeedRule = {
  name: 'show-title',
  severity: 'error',
  says: 'The show has no title.',
  rule: 'A channel has a title.',
  source: 'RSS 2.0, required channel elements',
  ifItStays: 'Directories refuse it.',
  fix: 'Give the show a name.',
  place: 'show.name',
  find: inChannel(channel => (textIn(channel, 'title') ? null : '')),
}
