import { letters } from '../../words/line'
import { mostHookLetters } from '../../episode/fields'
import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const hookLength: FeedRule = {
  name: 'hook-length',
  severity: 'warning',
  says: 'The hook of an episode is longer than apps show.',
  rule: 'itunes:subtitle has under 255 letters.',
  source: 'itunes namespace, subtitle (from memory); common practice, no source',
  ifItStays: 'Apps cut it.',
  fix: 'Shorten it to the one sentence that says why to listen.',
  place: 'episode.hook',
  find: inItems(item => {
    const hook = textIn(item, 'itunes:subtitle')
    return letters(hook) > mostHookLetters ? hook : null
  }),
}
