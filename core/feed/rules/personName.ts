import { type FeedRule, inEach } from './rule'

export const personName: FeedRule = {
  name: 'person-name',
  severity: 'warning',
  says: 'A person has no name.',
  rule: 'podcast:person has a name, at most 128 letters.',
  source: 'podcast namespace, person',
  ifItStays: 'Apps show a person without a name, or nobody.',
  fix: 'Give the name.',
  place: 'episode.people',
  find: inEach('podcast:person', ({ text, attributes }) => {
    const name = text.trim()
    return name !== '' && [...name].length <= 128 ? null : name || (attributes.role ?? '')
  }),
}
