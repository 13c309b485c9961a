import { textIn } from '../read'
import { type FeedRule, inChannel } from './rule'

export const completeShow: FeedRule = {
  name: 'complete-show',
  severity: 'note',
  says: 'It says that nothing will ever be added.',
  rule: 'itunes:complete with Yes ends a show.',
  source: 'itunes namespace, complete (from memory)',
  ifItStays: 'Apps ask no more; what comes later is not heard.',
  fix: 'Remove it if the show continues.',
  place: 'show.feedFacts',
  find: inChannel(channel => (/^yes$/i.test(textIn(channel, 'itunes:complete')) ? 'Yes' : null)),
  fixShow: () => ({ says: 'Say that it goes on', facts: { isComplete: false } }),
}
