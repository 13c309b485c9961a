import { isWebAddress } from '../../address/web'
import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const movedShow: FeedRule = {
  name: 'moved-show',
  severity: 'error',
  says: 'It says that it has moved to what is no address.',
  rule: 'itunes:new-feed-url is the address of a feed.',
  source: 'itunes namespace, new-feed-url (from memory)',
  ifItStays: 'Apps that follow it find nothing, and stop asking.',
  fix: 'Give the complete new address, or remove it.',
  place: 'show.feedFacts',
  find: inChannel(channel => {
    const moved = textIn(channel, 'itunes:new-feed-url')
    return moved === '' || isWebAddress(moved) ? null : moved
  }),
}
