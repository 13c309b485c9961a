import { type FeedRule, inAnswer } from './rule'

export const headAnswer: FeedRule = {
  name: 'head-answer',
  severity: 'note',
  says: 'It does not answer to HEAD as it does to GET.',
  rule: 'HEAD is answered as GET is, without the body.',
  source: 'RFC 9110, section 9.3.2',
  ifItStays: 'Programs that only check whether it exists assume it is gone.',
  fix: 'The server should answer HEAD requests.',
  place: 'host',
  find: inAnswer(({ headStatus, status }) =>
    status !== 200 || headStatus === null || headStatus === 200 ? null : String(headStatus),
  ),
}
