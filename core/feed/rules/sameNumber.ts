import type { ReadElement } from '../../xml/read'
import { textIn } from '../read'
import { type FeedRule, inRepeats, nextNumber } from './rule'

export const sameNumber: FeedRule = {
  name: 'same-number',
  severity: 'warning',
  says: 'Two episodes of a season have the same number.',
  rule: 'Within a season and a kind, each number is used once.',
  source: 'common practice, no source',
  ifItStays: 'Apps put them in either order, or take one for the other.',
  fix: 'Give one of them its right number.',
  place: 'episode.numbers',
  find: inRepeats(placeOf, item => textIn(item, 'itunes:episode')),
  fixEpisode(text, { all }) {
    const number = nextNumber(text, all)
    return { says: `Give it ${number}`, text: { number } }
  },
}

function placeOf(item: ReadElement): string | null {
  const number = textIn(item, 'itunes:episode')
  const kind = textIn(item, 'itunes:episodeType').toLowerCase() || 'full'
  return number && `${textIn(item, 'itunes:season')} ${kind} ${number}`
}
