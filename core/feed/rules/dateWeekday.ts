import { textIn } from '../read'
import { readDate } from './dates'
import { type FeedRule, inItems } from './rule'

export const dateWeekday: FeedRule = {
  name: 'date-weekday',
  severity: 'warning',
  says: 'The day of the week is not that of the date.',
  rule: 'The day of the week, where it is told, is that of the date.',
  source: 'RFC 5322, section 3.3, “must be the day implied by the date”',
  ifItStays: 'Strict readers refuse the date.',
  fix: 'Correct the date.',
  place: 'host',
  find: inItems(item => {
    const date = textIn(item, 'pubDate')
    return readDate(date)?.weekdayFits === false ? date : null
  }),
}
