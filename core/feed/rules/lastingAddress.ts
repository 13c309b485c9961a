import { type FeedRule, inEach } from './rule'

/** What an address that holds only for a while carries: the time at which it ends, or a signature of it. */
const passing = /[?&](x-amz-expires|x-amz-signature|x-goog-expires|x-goog-signature|expires|signature|sig|se)=/i

export const lastingAddress: FeedRule = {
  name: 'lasting-address',
  severity: 'error',
  says: 'The address of the audio holds only for a while.',
  rule: 'An address in a feed answers for as long as the episode is in it.',
  source: 'common practice, no source',
  ifItStays: 'In a few hours or days nobody will be able to play it.',
  fix: 'Bring the file here, or give an address that stays.',
  place: 'episode.audio',
  find: inEach('enclosure', ({ attributes: { url = '' } }) => (passing.test(url) ? url : null)),
}
