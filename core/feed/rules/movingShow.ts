import { isWebAddress } from '../../address/web'
import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const movingShow: FeedRule = {
  name: 'moving-show',
  severity: 'note',
  says: 'It says that it has moved to another address.',
  rule: 'Apps go to itunes:new-feed-url, and stay there.',
  source: 'itunes namespace, new-feed-url (from memory)',
  ifItStays: 'Who follows it there does not come back here.',
  fix: 'Remove it if the show stays here.',
  place: 'show.feedFacts',
  find: inChannel((channel, { address }) => {
    const moved = textIn(channel, 'itunes:new-feed-url')
    const own = channel.children.find(({ name, attributes }) => name === 'atom:link' && attributes.rel === 'self')
    // A feed that has come from elsewhere says that it is to be asked for here.
    return isWebAddress(moved) && moved !== address && moved !== own?.attributes.href ? moved : null
  }),
  fixShow: () => ({ says: 'Say that it stays here', facts: { movedTo: null, isRedirected: false } }),
}
