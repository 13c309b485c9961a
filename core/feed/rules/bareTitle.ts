import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const bareTitle: FeedRule = {
  name: 'bare-title',
  weight: 'good to know',
  says: 'The title for apps begins with the number.',
  rule: 'itunes:title goes without season and number, which apps show by themselves.',
  source: 'itunes namespace, title (from memory)',
  ifItStays: 'Apps show the number twice, and cut the title earlier.',
  mend: 'Leave the number to its own field.',
  place: 'episode.title',
  find: inItems(item => {
    const title = textIn(item, 'itunes:title')
    const number = textIn(item, 'itunes:episode')
    return number && new RegExp(`^(?:episode|ep\\.?|no\\.?|#)?\\s*0*${Number(number)}\\b`, 'i').test(title)
      ? title
      : null
  }),
}
