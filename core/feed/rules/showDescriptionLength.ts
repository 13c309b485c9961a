import { utf8Bytes } from '../../words/line'
import { mostDescriptionBytes } from '../description'
import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showDescriptionLength: FeedRule = {
  name: 'show-description-length',
  severity: 'warning',
  says: 'The description of the show is longer than apps take.',
  rule: 'At most 4,000 bytes.',
  source: 'itunes namespace, description (from memory)',
  ifItStays: 'Apps may cut it off anywhere.',
  fix: 'Shorten the description.',
  place: 'show.description',
  find: inChannel(channel => {
    const bytes = utf8Bytes(textIn(channel, 'description'))
    return bytes > mostDescriptionBytes ? `${bytes.toLocaleString('en')} bytes` : null
  }),
}
