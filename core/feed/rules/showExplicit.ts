import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showExplicit: FeedRule = {
  name: 'show-explicit',
  severity: 'error',
  says: 'The show does not say whether it is explicit.',
  rule: 'itunes:explicit is true or false.',
  source: 'itunes namespace, required tags (from memory)',
  ifItStays: 'Directories refuse it.',
  fix: 'Say whether it is explicit.',
  place: 'show.explicit',
  find: inChannel(channel => {
    const explicit = textIn(channel, 'itunes:explicit')
    return explicit ? null : ''
  }),
}
