import { textIn } from '../read'
import { readDate } from './dates'
import { type FeedRule, inItems } from './rule'

const dayMs = 24 * 3600_000

export const dateAhead: FeedRule = {
  name: 'date-ahead',
  severity: 'warning',
  says: 'An episode is dated in the future.',
  rule: 'Items in a feed must not be dated in the future.',
  source: 'RSS 2.0, pubDate sub-element of item',
  ifItStays: 'Some apps hide it until then, others show it now.',
  fix: 'Correct its date, or schedule it.',
  place: 'episode.moment',
  find: inItems((item, { now }) => {
    const date = textIn(item, 'pubDate')
    const read = readDate(date)
    // Clocks differ by some hours where a zone was taken for another.
    return read && +read.at > +now + dayMs ? date : null
  }),
}
