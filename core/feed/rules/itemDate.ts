import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const itemDate: FeedRule = {
  name: 'item-date',
  severity: 'error',
  says: 'An episode has no date.',
  rule: 'Each item has a pubDate.',
  source: 'RSS 2.0, pubDate sub-element of item; itunes namespace, recommended tags (from memory)',
  ifItStays: 'Apps put it anywhere, or leave it out.',
  fix: 'Give it a moment.',
  place: 'episode.moment',
  find: inItems(item => (textIn(item, 'pubDate') ? null : '')),
}
