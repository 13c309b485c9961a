import { textIn } from '../read'
import { readDate } from './dates'
import type { FeedRule } from './rule'

export const sameMoment: FeedRule = {
  name: 'same-moment',
  weight: 'worth mending',
  says: 'Two episodes have the same date and time.',
  rule: 'Apps sort by date; of two at one moment none is the first.',
  source: 'common practice, no source',
  ifItStays: 'Apps show them in either order.',
  mend: 'Date one of them a minute later.',
  place: 'episode.moment',
  find: ({ feed: { items } }) => {
    const seen = new Set<number>()
    return items.flatMap((item, index) => {
      const date = textIn(item, 'pubDate')
      const at = readDate(date)?.at
      if (!at) return []
      if (seen.has(+at)) return [{ item: index, value: date }]
      seen.add(+at)
      return []
    })
  },
}
