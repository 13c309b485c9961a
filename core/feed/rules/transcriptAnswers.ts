import { atAddresses, type FeedRule } from './rule'

export const transcriptAnswers: FeedRule = {
  name: 'transcript-answers',
  weight: 'worth mending',
  says: 'A transcript does not answer, or cannot be read.',
  rule: 'The address of a transcript answers with one of its type.',
  source: 'podcast namespace, transcript; W3C WebVTT, section 4.1',
  ifItStays: 'Apps show none.',
  mend: 'Bring it again.',
  place: 'episode.transcript',
  find: atAddresses('podcast:transcript', 'url', ({ status, problem, fault }) =>
    status === 200 ? fault : (problem ?? String(status)),
  ),
}
