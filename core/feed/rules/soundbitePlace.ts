import { textIn } from '../read'
import { secondsIn } from './duration'
import { type FeedRule, inItems } from './rule'

export const soundbitePlace: FeedRule = {
  name: 'soundbite-place',
  severity: 'warning',
  says: 'A soundbite lies outside its episode.',
  rule: 'podcast:soundbite has startTime and duration in seconds, within the episode.',
  source: 'podcast namespace, soundbite',
  ifItStays: 'Apps play nothing, or something else.',
  fix: 'Mark it anew.',
  place: 'episode.extras',
  find: inItems(item => {
    // A length that is none has a rule of its own.
    const told = secondsIn(textIn(item, 'itunes:duration'))
    const outside = item.children.find(({ name, attributes: { startTime = '', duration = '' } }) => {
      if (name !== 'podcast:soundbite') return false
      const [from, lasts] = [Number(startTime || NaN), Number(duration || NaN)]
      return !(from >= 0 && lasts > 0 && (told === null || from + lasts <= told + 1))
    })
    return outside && `${outside.attributes.startTime ?? ''} + ${outside.attributes.duration ?? ''}`
  }),
}
