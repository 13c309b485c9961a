import { type FeedRule, inEach } from './rule'

/** What listening apps play; the others are for readers of other kinds of feeds. */
const played =
  /^(audio\/(mpeg|mp3|x-m4a|mp4|m4a|aac|x-m4b|ogg|opus|flac|x-flac|wav|x-wav)|video\/(mp4|x-m4v|quicktime)|application\/(pdf|epub\+zip|vnd\.apple\.mpegurl|x-mpegurl))$/i

export const enclosureType: FeedRule = {
  name: 'enclosure-type',
  severity: 'error',
  says: 'The type of the audio is none that apps play.',
  rule: 'An enclosure has its type, such as audio/mpeg.',
  source: 'RSS 2.0, enclosure sub-element of item; itunes namespace, enclosure (from memory)',
  ifItStays: 'Apps leave the episode out.',
  fix: 'Give the type of the file; if it is none of these, deliver it as MP3.',
  place: 'episode.audio',
  find: inEach('enclosure', ({ attributes: { type = '' } }) => (played.test(type.trim()) ? null : type)),
}
