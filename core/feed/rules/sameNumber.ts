import { textIn } from '../read'
import type { FeedRule } from './rule'

export const sameNumber: FeedRule = {
  name: 'same-number',
  weight: 'worth mending',
  says: 'Two episodes of a season have the same number.',
  rule: 'Within a season and a kind, each number is there once.',
  source: 'common practice, no source',
  ifItStays: 'Apps put them in either order, or take one for the other.',
  mend: 'Give one of them its right number.',
  place: 'episode.numbers',
  find: ({ feed: { items } }) => {
    const seen = new Set<string>()
    return items.flatMap((item, index) => {
      const number = textIn(item, 'itunes:episode')
      const kind = textIn(item, 'itunes:episodeType').toLowerCase() || 'full'
      const key = `${textIn(item, 'itunes:season')} ${kind} ${number}`
      if (number === '' || !seen.has(key)) {
        seen.add(key)
        return []
      }
      return [{ item: index, value: number }]
    })
  },
}
