import { textIn } from '../read'
import { type FeedRule } from './rule'

export const sameTitle: FeedRule = {
  name: 'same-title',
  weight: 'good to know',
  says: 'Two episodes have the same title.',
  rule: 'Listeners tell episodes apart by their titles.',
  source: 'common practice, no source',
  ifItStays: 'One is taken for the other.',
  mend: 'Tell them apart in a word.',
  place: 'episode.title',
  find: ({ feed: { items } }) => {
    const seen = new Set<string>()
    return items.flatMap((item, index) => {
      const title = textIn(item, 'title')
      if (title === '' || !seen.has(title)) {
        seen.add(title)
        return []
      }
      return [{ item: index, value: title }]
    })
  },
}
