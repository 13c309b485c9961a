import { type ReadFormat, transcriptFormats, transcriptTypes } from '../../transcript/formats'
import { atAddresses, type FeedRule } from './rule'

export const transcriptAnswers: FeedRule = {
  name: 'transcript-answers',
  severity: 'warning',
  says: 'A transcript does not answer, or cannot be read.',
  rule: 'The address of a transcript answers with one of its type.',
  source: 'podcast namespace, transcript; W3C WebVTT, section 4.1',
  ifItStays: 'Apps show none.',
  fix: 'Bring it again.',
  place: 'episode.transcript',
  find: atAddresses('podcast:transcript', 'url', ({ status, problem, fault, form }, { attributes: { type = '' } }) => {
    if (status !== 200) return problem ?? String(status)
    const fits = form === null || !formOf.has(type.toLowerCase()) || formOf.get(type.toLowerCase()) === form
    return fault ?? (fits ? null : `${type}, and it is ${form === 'html' ? 'a page' : form}`)
  }),
}
const formOf = new Map<string, ReadFormat>([
  ...transcriptFormats.map(format => [transcriptTypes[format], format] as const),
  ['application/srt', 'srt'],
  ['text/srt', 'srt'],
])
