import { z } from 'zod'
import { one, textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const ownerEmail: FeedRule = {
  name: 'owner-email',
  severity: 'error',
  says: 'There is no email address of the owner.',
  rule: 'itunes:owner has an itunes:email.',
  source: 'itunes namespace, owner (from memory)',
  ifItStays: 'Directories cannot ask whether the show is yours, and refuse it.',
  fix: 'Name the owner’s email address.',
  place: 'show.ownerEmail',
  find: inChannel(channel => {
    const owner = one(channel, 'itunes:owner')
    const address = owner ? textIn(owner, 'itunes:email') : ''
    return z.email().safeParse(address).success ? null : address
  }),
}
