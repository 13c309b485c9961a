import { atAddresses, type FeedRule } from './rule'

export const chaptersAnswer: FeedRule = {
  name: 'chapters-answer',
  severity: 'warning',
  says: 'The file of chapters does not answer, or cannot be read.',
  rule: 'The address of the chapters answers with a list of them in JSON.',
  source: 'podcast namespace, chapters; JSON Chapters 1.2',
  ifItStays: 'Apps show none.',
  fix: 'Send the chapters again.',
  place: 'episode.chapters',
  find: atAddresses('podcast:chapters', 'url', ({ status, problem, fault }) =>
    status === 200 ? fault : (problem ?? String(status)),
  ),
}
