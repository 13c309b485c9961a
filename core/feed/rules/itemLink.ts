import { isWebAddress } from '../../address/web'
import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const itemLink: FeedRule = {
  name: 'item-link',
  severity: 'warning',
  says: 'The page of an episode has no address.',
  rule: 'The link of an item is an address on the web.',
  source: 'RSS 2.0, link of item',
  ifItStays: 'People who want to read more have nowhere to go.',
  fix: 'Give its page, or leave it to its public page here.',
  place: 'episode.extras',
  find: inItems(item => {
    const link = textIn(item, 'link')
    return link === '' || isWebAddress(link) ? null : link
  }),
}
