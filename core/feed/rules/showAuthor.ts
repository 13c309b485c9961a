import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showAuthor: FeedRule = {
  name: 'show-author',
  severity: 'warning',
  says: 'The show does not say who makes it.',
  rule: 'itunes:author names who makes the show.',
  source: 'itunes namespace, recommended tags (from memory)',
  ifItStays: 'Apps show nobody beneath its name.',
  fix: 'Name the author.',
  place: 'show.author',
  find: inChannel(channel => (textIn(channel, 'itunes:author') ? null : '')),
}
