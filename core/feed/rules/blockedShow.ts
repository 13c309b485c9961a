import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const blockedShow: FeedRule = {
  name: 'blocked-show',
  severity: 'note',
  says: 'It asks directories not to list it.',
  rule: 'itunes:block with Yes keeps a show out of directories.',
  source: 'itunes namespace, block (from memory)',
  ifItStays: 'Directories refuse it, or take it off their lists.',
  fix: 'Remove it if people should find the show.',
  place: 'show.feedFacts',
  find: inChannel(channel => (/^yes$/i.test(textIn(channel, 'itunes:block')) ? 'Yes' : null)),
  fixShow: () => ({ says: 'Let directories list it', facts: { isBlocked: false } }),
}
