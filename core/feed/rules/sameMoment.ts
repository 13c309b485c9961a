import { textIn } from '../read'
import { readDate } from './dates'
import { type FeedRule, inRepeats } from './rule'

export const sameMoment: FeedRule = {
  name: 'same-moment',
  severity: 'warning',
  says: 'Two episodes have the same date and time.',
  rule: 'Apps sort by date; of two at one moment none is the first.',
  source: 'common practice, no source',
  ifItStays: 'Apps show them in either order.',
  fix: 'Date one of them a minute later.',
  place: 'episode.moment',
  find: inRepeats(
    item => readDate(textIn(item, 'pubDate'))?.at.toISOString() ?? null,
    item => textIn(item, 'pubDate'),
  ),
}
