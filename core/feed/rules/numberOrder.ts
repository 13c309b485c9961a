import { textIn } from '../read'
import type { ReadElement } from '../../xml/read'
import { readDate } from './dates'
import type { FeedRule } from './rule'

export const numberOrder: FeedRule = {
  name: 'number-order',
  severity: 'warning',
  says: 'An episode is dated before one with a lower number.',
  rule: 'Within a season, dates go as the numbers go.',
  source: 'common practice, no source',
  ifItStays: 'Apps list the two in the wrong order, and play them so.',
  fix: 'Exchange their dates.',
  place: 'episode.moment',
  find: ({ feed: { items } }) => {
    const numbered = items
      .flatMap((item, index) => numbersOf(item, index))
      .sort((one, other) => one.season - other.season || one.number - other.number)
    return numbered.flatMap(({ season, number, at, index }, place) => {
      const before = numbered[place - 1]
      const isWrong = before?.season === season && before.number < number && before.at > at
      return isWrong ? [{ item: index, value: `${number}, behind ${before.number}` }] : []
    })
  },
}

function numbersOf(item: ReadElement, index: number) {
  const number = Number(textIn(item, 'itunes:episode'))
  const at = readDate(textIn(item, 'pubDate'))?.at
  const season = Number(textIn(item, 'itunes:season')) || 0
  return Number.isInteger(number) && number > 0 && at ? [{ index, number, season, at: +at }] : []
}
