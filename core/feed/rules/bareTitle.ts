import { trimmed } from '../../words/line'
import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

/** A number at the beginning of a title, as people write it there. */
const numberAt = (number: number | string): RegExp =>
  new RegExp(`^(?:episode|ep\\.?|no\\.?|#)?\\s*0*${Number(number)}\\b`, 'i')

export const bareTitle: FeedRule = {
  name: 'bare-title',
  severity: 'note',
  says: 'The title for apps begins with the number.',
  rule: 'itunes:title goes without season and number, which apps show by themselves.',
  source: 'itunes namespace, title (from memory)',
  ifItStays: 'Apps show the number twice, and cut the title earlier.',
  fix: 'Leave the number to its own field.',
  place: 'episode.title',
  find: inItems(item => {
    const title = textIn(item, 'itunes:title')
    const number = textIn(item, 'itunes:episode')
    return number && numberAt(number).test(title) ? title : null
  }),
  fixEpisode({ title, number }) {
    const bare = number === null ? '' : trimmed(title.trim().replace(numberAt(number), ''), ' .:,·–—-)')
    return bare ? { says: `Call it “${bare}”`, text: { title: bare } } : null
  },
}
