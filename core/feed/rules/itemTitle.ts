import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const itemTitle: FeedRule = {
  name: 'item-title',
  severity: 'error',
  says: 'An episode has no title.',
  rule: 'Each item has a title.',
  source: 'RSS 2.0, elements of item; itunes namespace, required tags (from memory)',
  ifItStays: 'Apps show an empty line, or leave it out.',
  fix: 'Give it a title.',
  place: 'episode.title',
  find: inItems(item => (textIn(item, 'title') ? null : '')),
}
