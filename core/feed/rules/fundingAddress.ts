import { isWebAddress } from '../../address/web'
import { all } from '../read'
import { type FeedRule, inChannel } from './rule'

export const fundingAddress: FeedRule = {
  name: 'funding-address',
  severity: 'warning',
  says: 'A way to give has no address.',
  rule: 'podcast:funding has a url.',
  source: 'podcast namespace, funding',
  ifItStays: 'Who wants to give cannot.',
  fix: 'Give the address of the page.',
  place: 'show.feedFacts',
  find: inChannel(channel => {
    const broken = all(channel, 'podcast:funding').find(({ attributes }) => !isWebAddress(attributes.url ?? ''))
    return broken && (broken.attributes.url ?? broken.text)
  }),
}
