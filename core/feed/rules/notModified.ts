import { type FeedRule, inAnswer } from './rule'

export const notModified: FeedRule = {
  name: 'not-modified',
  severity: 'note',
  says: 'Asked whether it has changed, it comes as a whole again.',
  rule: 'Who asks with what it was given last is answered 304 while nothing has changed.',
  source: 'RFC 9110, section 13.1.2 and 15.4.5',
  ifItStays: 'Directories that ask often are slowed down, or ask less often.',
  fix: 'The server should answer conditional requests.',
  place: 'host',
  find: inAnswer(({ conditionalStatus }) =>
    conditionalStatus === null || conditionalStatus === 304 ? null : String(conditionalStatus),
  ),
}
