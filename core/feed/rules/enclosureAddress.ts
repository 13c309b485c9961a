import { isWebAddress } from '../../address/web'
import { type FeedRule, inEach } from './rule'

export const enclosureAddress: FeedRule = {
  name: 'enclosure-address',
  severity: 'error',
  says: 'The audio of an episode has no address.',
  rule: 'An enclosure has a url, an address on the web, without spaces.',
  source: 'RSS 2.0, enclosure sub-element of item, “The url must be an http url”; RFC 3986, section 2',
  ifItStays: 'Apps cannot play it.',
  fix: 'Bring its audio again.',
  place: 'episode.audio',
  find: inEach('enclosure', ({ attributes: { url = '' } }) => (isWebAddress(url.trim()) ? null : url)),
}
