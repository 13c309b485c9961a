import { type FeedRule, inEach } from './rule'

export const enclosureLength: FeedRule = {
  name: 'enclosure-length',
  severity: 'error',
  says: 'The size of the audio is missing.',
  rule: 'An enclosure has its length in bytes.',
  source: 'RSS 2.0, enclosure sub-element of item, “All three attributes are required”',
  ifItStays: 'Apps show no progress while they load it; some refuse it.',
  fix: 'Give the size of the file.',
  place: 'host',
  find: inEach('enclosure', ({ attributes: { length = '' } }) => (/^[1-9]\d*$/.test(length.trim()) ? null : length)),
}
