import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const numberForm: FeedRule = {
  name: 'number-form',
  severity: 'warning',
  says: 'A number of an episode or a season is none.',
  rule: 'itunes:episode and itunes:season are whole numbers, 1 at least.',
  source: 'itunes namespace, episode and season (from memory)',
  ifItStays: 'Apps pass over it.',
  fix: 'Give the number alone.',
  place: 'episode.numbers',
  find: inItems(item =>
    ['itunes:episode', 'itunes:season']
      .map(name => textIn(item, name))
      .find(number => !/^([1-9]\d{0,6})?$/.test(number)),
  ),
}
