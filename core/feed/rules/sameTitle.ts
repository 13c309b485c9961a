import { textIn } from '../read'
import { type FeedRule, inRepeats } from './rule'

export const sameTitle: FeedRule = {
  name: 'same-title',
  severity: 'note',
  says: 'Two episodes have the same title.',
  rule: 'Listeners tell episodes apart by their titles.',
  source: 'common practice, no source',
  ifItStays: 'One is taken for the other.',
  fix: 'Tell them apart in a word.',
  place: 'episode.title',
  find: inRepeats(
    item => textIn(item, 'title'),
    item => textIn(item, 'title'),
  ),
}
