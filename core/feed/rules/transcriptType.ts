import { type FeedRule, inEach } from './rule'

const read = /^(text\/(vtt|srt|html|plain)|application\/(x-subrip|srt|json))$/i

export const transcriptType: FeedRule = {
  name: 'transcript-type',
  severity: 'warning',
  says: 'A transcript has no address, or a type that apps do not read.',
  rule: 'podcast:transcript has url and type: text/vtt, application/x-subrip, application/json, text/html or text/plain.',
  source: 'podcast namespace, transcript',
  ifItStays: 'Apps do not show it.',
  fix: 'Bring it as WebVTT.',
  place: 'episode.transcript',
  find: inEach('podcast:transcript', ({ attributes: { url = '', type = '' } }) =>
    url !== '' && read.test(type) ? null : `${type} ${url}`.trim(),
  ),
}
