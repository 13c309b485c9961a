import { isWebAddress } from '../../address/web'
import { one } from '../read'
import { type FeedRule, inItems } from './rule'

export const itemArtwork: FeedRule = {
  name: 'item-artwork',
  severity: 'warning',
  says: 'The artwork of an episode has no address.',
  rule: 'itunes:image has an href.',
  source: 'itunes namespace, image (from memory)',
  ifItStays: 'Apps show the show’s, or nothing.',
  fix: 'Choose it again.',
  place: 'episode.artwork',
  find: inItems(item => {
    const image = one(item, 'itunes:image')
    const address = image?.attributes.href ?? ''
    return image && !isWebAddress(address) ? address : null
  }),
}
