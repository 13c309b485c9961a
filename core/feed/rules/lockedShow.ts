import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const lockedShow: FeedRule = {
  name: 'locked-show',
  severity: 'note',
  says: 'It does not say whether other hosts may take the show over.',
  rule: 'podcast:locked is yes or no.',
  source: 'podcast namespace, locked',
  ifItStays: 'Who brings the show elsewhere is not asked whether it is theirs.',
  fix: 'Lock the show.',
  place: 'show.feedFacts',
  find: inChannel(channel => {
    const locked = textIn(channel, 'podcast:locked')
    return /^(yes|no)$/i.test(locked) ? null : locked
  }),
}
