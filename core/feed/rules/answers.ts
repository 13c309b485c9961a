import { type FeedRule, inAnswer } from './rule'

export const answers: FeedRule = {
  name: 'answers',
  severity: 'error',
  says: 'The address of the feed does not answer with it.',
  rule: 'A feed answers with 200.',
  source: 'RFC 9110, section 15.3.1',
  ifItStays: 'Apps and directories get nothing.',
  fix: 'The server of the feed needs fixing.',
  place: 'host',
  find: inAnswer(({ status }) => (status === 200 ? null : String(status))),
}
