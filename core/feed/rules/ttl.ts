import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const ttl: FeedRule = {
  name: 'ttl',
  severity: 'warning',
  says: 'How long it may be kept is no number of minutes.',
  rule: 'ttl is a number of minutes.',
  source: 'RSS 2.0, ttl sub-element of channel',
  ifItStays: 'Readers ask as often as they like.',
  fix: 'Give a number of minutes, such as 60.',
  place: 'host',
  find: inChannel(channel => {
    const minutes = textIn(channel, 'ttl')
    return minutes === '' || /^[1-9]\d{0,6}$/.test(minutes) ? null : minutes
  }),
}
