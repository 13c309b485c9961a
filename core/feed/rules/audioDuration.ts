import { textIn } from '../read'
import { secondsIn } from './duration'
import { type FeedRule, inItems } from './rule'

/** Some writers round, and leave out an advertisement that the host puts in. */
const tolerance = { seconds: 30, share: 0.1 }

export const audioDuration: FeedRule = {
  name: 'audio-duration',
  severity: 'warning',
  says: 'The audio is not as long as the feed says.',
  rule: 'itunes:duration is the length of the file.',
  source: 'itunes namespace, duration (from memory)',
  ifItStays: 'Lists show a wrong length; apps that go by it break off, or show a wrong progress.',
  fix: 'Give the length of the file.',
  place: 'episode.audio',
  find: inItems((item, { answers }) => {
    const told = secondsIn(textIn(item, 'itunes:duration'))
    const address = item.children.find(({ name }) => name === 'enclosure')?.attributes.url?.trim() ?? ''
    const heardMs = answers.get(address)?.durationMs ?? null
    if (told === null || heardMs === null) return null
    const heard = Math.round(heardMs / 1000)
    const off = Math.abs(told - heard)
    return off > Math.max(tolerance.seconds, heard * tolerance.share) ? `${told} s, and it has ${heard} s` : null
  }),
}
