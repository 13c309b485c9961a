import { textIn } from '../read'
import { type FeedRule, inItems, isBeside, nextNumber } from './rule'

export const serialNumbers: FeedRule = {
  name: 'serial-numbers',
  severity: 'warning',
  says: 'An episode of a serial show has no number.',
  rule: 'Where a show is serial, its full episodes are numbered.',
  source: 'itunes namespace, type and episode (from memory)',
  ifItStays: 'Apps cannot play it in its order.',
  fix: 'Give it its number.',
  place: 'episode.numbers',
  find: inItems((item, { feed }) => {
    const isSerial = textIn(feed.channel!, 'itunes:type').toLowerCase() === 'serial'
    const kind = textIn(item, 'itunes:episodeType').toLowerCase()
    const isFull = kind === '' || kind === 'full'
    return isSerial && isFull && !textIn(item, 'itunes:episode') ? '' : null
  }),
  fixEpisode(text, { all, before }) {
    const number = nextNumber(text, before)
    return all.some(other => isBeside(text, other) && other.number === number)
      ? null
      : { says: `Give it ${number}`, text: { number } }
  },
}
