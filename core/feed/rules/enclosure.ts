import { one } from '../read'
import { type FeedRule, inItems } from './rule'

export const enclosure: FeedRule = {
  name: 'enclosure',
  severity: 'error',
  says: 'An episode has no audio.',
  rule: 'Each item has an enclosure with its audio.',
  source: 'RSS 2.0, enclosure sub-element of item; itunes namespace, required tags (from memory)',
  ifItStays: 'Apps leave it out.',
  fix: 'Bring its audio.',
  place: 'episode.audio',
  find: inItems(item => (one(item, 'enclosure') ? null : '')),
}
