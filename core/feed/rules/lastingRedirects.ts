import { type FeedRule, inAnswer } from './rule'

export const lastingRedirects: FeedRule = {
  name: 'lasting-redirects',
  severity: 'warning',
  says: 'Its address leads elsewhere only for the time being.',
  rule: 'What has moved for good is led on by 301 or 308.',
  source: 'RFC 9110, sections 15.4.2 and 15.4.9',
  ifItStays: 'Directories keep asking the old address.',
  fix: 'The old address should redirect with 301.',
  place: 'host',
  find: inAnswer(({ redirects }) => {
    const passing = redirects.find(({ status }) => status !== 301 && status !== 308)
    return passing && `${passing.status} to ${passing.to}`
  }),
}
