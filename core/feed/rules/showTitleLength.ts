import { letters } from '../../words/line'
import { textIn } from '../read'
import { type FeedRule, inChannel, practice } from './rule'

const mostLetters = 255

export const showTitleLength: FeedRule = {
  name: 'show-title-length',
  severity: 'warning',
  says: 'The name of the show is very long.',
  rule: `At most ${mostLetters} letters; lists show some forty.`,
  source: practice,
  ifItStays: 'Directories cut it off, or reject it for keyword stuffing.',
  fix: 'Shorten the name; what the show is about belongs into its description.',
  place: 'show.name',
  find: inChannel(channel => {
    const title = textIn(channel, 'title')
    return letters(title) > mostLetters ? title : null
  }),
}
