import { type FeedRule, inChannel } from './rule'

export const selfLink: FeedRule = {
  name: 'self-link',
  severity: 'warning',
  says: 'It does not name its own address.',
  rule: 'An atom:link with rel="self" names the address of the feed.',
  source: 'RSS Advisory Board profile, atom:link; RFC 4287, section 4.2.7.2',
  ifItStays: 'Who has a copy of it does not know where the original is.',
  fix: 'Add it to the feed.',
  place: 'host',
  find: inChannel(channel =>
    channel.children.some(({ name, attributes }) => name === 'atom:link' && attributes.rel === 'self') ? null : '',
  ),
}
