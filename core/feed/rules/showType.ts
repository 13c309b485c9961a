import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showType: FeedRule = {
  name: 'show-type',
  severity: 'warning',
  says: 'The order of the show is told by a word that nobody knows.',
  rule: 'itunes:type is episodic or serial.',
  source: 'itunes namespace, type (from memory)',
  ifItStays: 'Apps show the newest first, also where it should be heard from the beginning.',
  fix: 'Choose episodic or serial.',
  place: 'show.type',
  find: inChannel(channel => {
    const type = textIn(channel, 'itunes:type')
    return type === '' || /^(episodic|serial)$/i.test(type) ? null : type
  }),
}
