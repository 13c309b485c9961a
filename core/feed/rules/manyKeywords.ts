import { textIn } from '../read'
import { type FeedRule, inChannel, practice } from './rule'

const most = 12

export const manyKeywords: FeedRule = {
  name: 'many-keywords',
  severity: 'note',
  says: 'It has very many keywords.',
  rule: `At most ${most}; directories treat more as keyword stuffing.`,
  source: practice,
  ifItStays: 'Directories pass over all of them.',
  fix: 'Keep those that somebody would look for.',
  place: 'show.feedFacts',
  find: inChannel(channel => {
    const keywords = textIn(channel, 'itunes:keywords')
      .split(',')
      .filter(word => word.trim() !== '')
    return keywords.length > most ? `${keywords.length} keywords` : null
  }),
  fixShow: ({ keywords }) => ({ says: `Keep the first ${most}`, facts: { keywords: keywords.slice(0, most) } }),
}
