import { textIn } from '../read'
import type { FeedRule } from './rule'

export const sameGuid: FeedRule = {
  name: 'same-guid',
  weight: 'must mend',
  says: 'Two episodes have the same GUID.',
  rule: 'A guid names one item and no other.',
  source: 'RSS 2.0, guid sub-element of item',
  ifItStays: 'Apps show only one of them.',
  mend: 'Whoever writes the feed gives the newer one a guid of its own.',
  place: 'host',
  find: ({ feed: { items } }) => {
    const seen = new Set<string>()
    return items.flatMap((item, index) => {
      const guid = textIn(item, 'guid')
      if (guid === '' || !seen.has(guid)) {
        seen.add(guid)
        return []
      }
      return [{ item: index, value: guid }]
    })
  },
}
