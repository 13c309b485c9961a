import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const itemNotes: FeedRule = {
  name: 'item-notes',
  severity: 'warning',
  says: 'An episode has no notes.',
  rule: 'Each item has a description, or its notes in content:encoded.',
  source: 'RSS 2.0, description of item; itunes namespace, recommended tags (from memory)',
  ifItStays: 'Apps show nothing beneath its title.',
  fix: 'Write a sentence on why to listen.',
  place: 'episode.notes',
  find: inItems(item => (['description', 'content:encoded'].some(name => textIn(item, name) !== '') ? null : '')),
}
