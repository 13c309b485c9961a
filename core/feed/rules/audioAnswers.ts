import { atAddresses, type FeedRule } from './rule'

export const audioAnswers: FeedRule = {
  name: 'audio-answers',
  severity: 'error',
  says: 'The audio of an episode does not answer.',
  rule: 'The address of an enclosure answers with the file.',
  source: 'RSS 2.0, enclosure sub-element of item; RFC 9110, section 15.3.1',
  ifItStays: 'Nobody can hear it.',
  fix: 'Bring its audio again.',
  place: 'episode.audio',
  find: atAddresses('enclosure', 'url', ({ status, problem }) =>
    status === 200 || status === 206 ? null : (problem ?? String(status)),
  ),
}
