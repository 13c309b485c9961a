import { utf8Bytes } from '../../words/line'
import { mostDescriptionBytes } from '../description'
import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const notesLength: FeedRule = {
  name: 'notes-length',
  severity: 'warning',
  says: 'The description of an episode is longer than apps take.',
  rule: 'At most 4,000 bytes; the whole notes go into content:encoded.',
  source: 'itunes namespace, description (from memory)',
  ifItStays: 'Apps may cut it off anywhere.',
  fix: 'Shorten the description.',
  place: 'episode.notes',
  find: inItems(item => {
    const bytes = utf8Bytes(textIn(item, 'description'))
    return bytes > mostDescriptionBytes ? `${bytes.toLocaleString('en')} bytes` : null
  }),
}
