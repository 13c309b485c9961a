import { textIn } from '../read'
import { readDate } from './dates'
import { type FeedRule, inItems } from './rule'

export const dateZone: FeedRule = {
  name: 'date-zone',
  severity: 'note',
  says: 'A date tells its zone by a name.',
  rule: 'A zone is told in figures, as +0100; names are read, but no longer written. GMT alone is common.',
  source: 'RFC 5322, sections 3.3 and 4.3',
  ifItStays: 'Some readers take it for another zone.',
  fix: 'Write the time zone in figures.',
  place: 'host',
  find: inItems(item => {
    const date = textIn(item, 'pubDate')
    return readDate(date)?.hasNamedZone && !date.endsWith('GMT') ? date : null
  }),
}
