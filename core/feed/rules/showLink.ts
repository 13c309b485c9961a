import { isWebAddress } from '../../address/web'
import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const showLink: FeedRule = {
  name: 'show-link',
  severity: 'error',
  says: 'The show has no link to its site.',
  rule: 'A channel has a link, the address of the site that belongs to it.',
  source: 'RSS 2.0, required channel elements',
  ifItStays: 'Who wants to know more of the show finds no way.',
  fix: 'Name the show’s site, or leave it to its public page.',
  place: 'show.feedFacts',
  find: inChannel(channel => {
    const link = textIn(channel, 'link')
    return isWebAddress(link) ? null : link
  }),
}
