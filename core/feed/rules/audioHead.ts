import { atAddresses, type FeedRule } from './rule'

export const audioHead: FeedRule = {
  name: 'audio-head',
  severity: 'warning',
  says: 'The audio does not answer to HEAD.',
  rule: 'HEAD is answered as GET is, without the body.',
  source: 'RFC 9110, section 9.3.2; itunes namespace, requirements (from memory)',
  ifItStays: 'Directories that look before they fetch take it for missing.',
  fix: 'Bring the file here, or ask its host.',
  place: 'episode.audio',
  find: atAddresses('enclosure', 'url', ({ headStatus, status }) =>
    headStatus === null || headStatus === 200 || (status !== 200 && status !== 206) ? null : String(headStatus),
  ),
}
