import { type FeedRule, inChannel } from './rule'

export const ownAddress: FeedRule = {
  name: 'own-address',
  severity: 'warning',
  says: 'It names another address as its own than the one it was fetched from.',
  rule: 'The atom:link with rel="self" is the address of the feed.',
  source: 'RFC 4287, section 4.2.7.2',
  ifItStays: 'Apps and directories can take both for shows of their own.',
  fix: 'Hand on the address that it names; or, where it has moved, lead the old address to the new one.',
  place: 'host',
  find: inChannel((channel, { address }) => {
    const self = channel.children.find(({ name, attributes }) => name === 'atom:link' && attributes.rel === 'self')
    const named = self?.attributes.href
    return address && named && named !== address ? named : null
  }),
}
