import { textIn } from '../read'
import { type FeedRule, inRepeats } from './rule'

export const sameGuid: FeedRule = {
  name: 'same-guid',
  severity: 'error',
  says: 'Two episodes have the same GUID.',
  rule: 'A guid names one item and no other.',
  source: 'RSS 2.0, guid sub-element of item',
  ifItStays: 'Apps show only one of them.',
  fix: 'Give the newer one its own guid.',
  place: 'host',
  find: inRepeats(
    item => textIn(item, 'guid'),
    item => textIn(item, 'guid'),
  ),
}
