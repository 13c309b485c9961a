import { attributeIn } from '../read'
import { type FeedRule, inRepeats } from './rule'

export const sameEnclosure: FeedRule = {
  name: 'same-enclosure',
  severity: 'warning',
  says: 'Two episodes have the same audio.',
  rule: 'Each item has a file of its own.',
  source: 'common practice, no source',
  ifItStays: 'Listeners hear the same twice, and numbers count it together.',
  fix: 'Look whether one of them has the wrong file.',
  place: 'episode.audio',
  find: inRepeats(
    item => attributeIn(item, 'enclosure', 'url'),
    item => attributeIn(item, 'enclosure', 'url'),
  ),
}
