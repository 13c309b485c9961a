import { all } from '../read'
import { type FeedRule, inItems } from './rule'

export const oneEnclosure: FeedRule = {
  name: 'one-enclosure',
  severity: 'warning',
  says: 'An episode has more than one enclosure.',
  rule: 'One enclosure for each item; apps play one, and differ in which.',
  source: 'RSS Advisory Board profile, enclosure',
  ifItStays: 'Listeners hear another file in each app.',
  fix: 'Keep one, and list the others as podcast:alternateEnclosure.',
  place: 'host',
  find: inItems(item => {
    const count = all(item, 'enclosure').length
    return count > 1 ? `${count} enclosures` : null
  }),
}
