import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const episodeKind: FeedRule = {
  name: 'episode-kind',
  severity: 'warning',
  says: 'The kind of an episode is told by a word that nobody knows.',
  rule: 'itunes:episodeType is full, trailer or bonus.',
  source: 'itunes namespace, episodeType (from memory)',
  ifItStays: 'Apps take it for a full episode.',
  fix: 'Choose full, trailer or bonus.',
  place: 'episode.kind',
  find: inItems(item => {
    const kind = textIn(item, 'itunes:episodeType')
    return /^(full|trailer|bonus)?$/i.test(kind) ? null : kind
  }),
}
