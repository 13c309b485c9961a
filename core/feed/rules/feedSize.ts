import { amount } from '../../words/amounts'
import { type FeedRule, practice } from './rule'

const mostBytes = 10_000_000
const newest = 100

export const feedSize: FeedRule = {
  name: 'feed-size',
  severity: 'warning',
  says: 'It is very large.',
  rule: `Some readers stop at ${amount(mostBytes)}.`,
  source: practice,
  ifItStays: 'Older episodes can be missing in apps, or the whole show.',
  fix: 'Choose how many episodes the feed carries; the older ones come in further parts.',
  place: 'show.feedFacts',
  find: ({ bytes }) => (bytes > mostBytes ? [{ item: null, value: amount(bytes) }] : []),
  fixShow: () => ({ says: `Carry the newest ${newest}, the older ones in parts`, facts: { itemsPerPart: newest } }),
}
