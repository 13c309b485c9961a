import { atAddresses, type FeedRule } from './rule'

export const audioBytes: FeedRule = {
  name: 'audio-bytes',
  severity: 'warning',
  says: 'The audio is not as large as the feed says.',
  rule: 'The length of an enclosure is that of its file.',
  source: 'RSS 2.0, enclosure sub-element of item',
  ifItStays: 'Apps take it for broken off, or show a wrong progress.',
  fix: 'Give the actual size of the file.',
  place: 'episode.audio',
  find: atAddresses('enclosure', 'url', ({ bytes }, { attributes }) => {
    const told = Number(attributes.length)
    return bytes === null || bytes === told ? null : `${attributes.length}, and it has ${bytes}`
  }),
}
