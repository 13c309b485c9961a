import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showDescription: FeedRule = {
  name: 'show-description',
  severity: 'error',
  says: 'The show has no description.',
  rule: 'A channel has a description.',
  source: 'RSS 2.0, required channel elements',
  ifItStays: 'Directories refuse it, and nobody knows what it is about.',
  fix: 'Say in two or three sentences what the show is about.',
  place: 'show.description',
  find: inChannel(channel => (textIn(channel, 'description') ? null : '')),
}
