import { isWebAddress } from '../../address/web'
import { attributeIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showArtwork: FeedRule = {
  name: 'show-artwork',
  severity: 'error',
  says: 'The show has no artwork.',
  rule: 'itunes:image names the address of the artwork.',
  source: 'itunes namespace, required tags (from memory)',
  ifItStays: 'Directories refuse it; apps show a grey square.',
  fix: 'Choose the artwork.',
  place: 'show.artwork',
  find: inChannel(channel => {
    const address = attributeIn(channel, 'itunes:image', 'href')
    return isWebAddress(address) ? null : address
  }),
}
