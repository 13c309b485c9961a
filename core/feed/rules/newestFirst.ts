import { textIn } from '../read'
import { readDate } from './dates'
import type { FeedRule } from './rule'

export const newestFirst: FeedRule = {
  name: 'newest-first',
  severity: 'note',
  says: 'The items do not go from the newest to the oldest.',
  rule: 'A feed has its newest item first.',
  source: 'common practice, no source',
  ifItStays: 'Readers that look at the first items only miss new ones.',
  fix: 'Sort the items by date.',
  place: 'host',
  find: ({ feed: { items } }) => {
    const dates = items.flatMap((item, index) => {
      const read = readDate(textIn(item, 'pubDate'))
      return read ? [{ index, at: +read.at }] : []
    })
    return dates.flatMap(({ index, at }, place) =>
      place > 0 && at > dates[place - 1]!.at ? [{ item: index, value: textIn(items[index]!, 'pubDate') }] : [],
    )
  },
}
