import { textIn } from '../read'
import { readDate } from './dates'
import { type FeedRule, inItems } from './rule'

export const dateForm: FeedRule = {
  name: 'date-form',
  severity: 'error',
  says: 'The date of an episode cannot be read.',
  rule: 'A date is written as mail writes it: Thu, 03 Dec 2026 05:00:00 +0000.',
  source: 'RSS 2.0, pubDate; RFC 822, section 5; RFC 5322, section 3.3',
  ifItStays: 'Apps put it anywhere, or take it for new each time.',
  fix: 'Write it in this form.',
  place: 'host',
  find: inItems(item => {
    const date = textIn(item, 'pubDate')
    return date === '' || readDate(date) ? null : date
  }),
}
