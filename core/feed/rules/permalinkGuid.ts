import { isWebAddress } from '../../address/web'
import { type FeedRule, inEach } from './rule'

export const permalinkGuid: FeedRule = {
  name: 'permalink-guid',
  severity: 'warning',
  says: 'A GUID is marked as a permalink but is not a web address.',
  rule: 'A guid is an address unless it says isPermaLink="false".',
  source: 'RSS 2.0, guid sub-element of item',
  ifItStays: 'Readers open a page that does not exist.',
  fix: 'Set isPermaLink="false".',
  place: 'host',
  find: inEach('guid', ({ text, attributes }) =>
    attributes.isPermaLink !== 'false' && text.trim() !== '' && !isWebAddress(text.trim()) ? text.trim() : null,
  ),
}
