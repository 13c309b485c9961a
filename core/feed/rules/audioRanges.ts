import { atAddresses, type FeedRule } from './rule'

export const audioRanges: FeedRule = {
  name: 'audio-ranges',
  severity: 'error',
  says: 'The audio cannot be had in parts.',
  rule: 'A request for a range of bytes is answered with 206.',
  source: 'RFC 9110, section 14; itunes namespace, requirements (from memory)',
  ifItStays: 'Listeners cannot go to a place in it, and directories refuse it.',
  fix: 'Bring the file here, or ask its host.',
  place: 'episode.audio',
  find: atAddresses('enclosure', 'url', ({ takesRanges, status }) =>
    (status === 200 || status === 206) && !takesRanges ? '' : null,
  ),
}
