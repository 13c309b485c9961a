import { atAddresses, type FeedRule } from './rule'

/** One type under several names. */
const family = (type: string): string =>
  type
    .split(';')[0]!
    .trim()
    .toLowerCase()
    .replace(/^audio\/(x-)?(m4a|m4b|mp4|aac)$/, 'audio/mp4')
    .replace(/^audio\/(x-)?(mp3|mpeg)$/, 'audio/mpeg')
    .replace(/^audio\/x-/, 'audio/')

export const audioType: FeedRule = {
  name: 'audio-type',
  severity: 'warning',
  says: 'The audio is served as another type than the feed says.',
  rule: 'The type of an enclosure is that with which its file is served.',
  source: 'RSS 2.0, enclosure sub-element of item; RFC 9110, section 8.3',
  ifItStays: 'Apps that go by the one or the other do not play it.',
  fix: 'The server should send the type of the file.',
  place: 'host',
  find: atAddresses('enclosure', 'url', ({ contentType, status }, { attributes }) =>
    (status !== 200 && status !== 206) || family(contentType) === family(attributes.type ?? '')
      ? null
      : `${attributes.type ?? ''}, served as ${contentType || 'nothing'}`,
  ),
}
