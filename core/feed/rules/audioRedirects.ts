import { atAddresses, type FeedRule } from './rule'

const most = 3

export const audioRedirects: FeedRule = {
  name: 'audio-redirects',
  severity: 'warning',
  says: 'The address of the audio leads on again and again.',
  rule: `At most ${most} redirects.`,
  source: 'common practice, no source; RFC 9110, section 15.4, on loops',
  ifItStays: 'Some apps give up on the way; all begin later.',
  fix: 'Give the address of the file itself.',
  place: 'episode.audio',
  find: atAddresses('enclosure', 'url', ({ redirects }) => (redirects > most ? `${redirects} redirects` : null)),
}
