import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const itemGuid: FeedRule = {
  name: 'item-guid',
  severity: 'error',
  says: 'An episode has no GUID.',
  rule: 'Each item has a guid, which never changes.',
  source: 'RSS 2.0, guid sub-element of item; itunes namespace, required tags (from memory)',
  ifItStays: 'Apps show it as new whenever anything about it changes.',
  fix: 'Give each item a guid and never change it.',
  place: 'host',
  find: inItems(item => (textIn(item, 'guid') ? null : '')),
}
