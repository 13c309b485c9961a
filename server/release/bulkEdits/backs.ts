import { conflict, type Field } from '@core/episode/field'
import { type EpisodeField, type EpisodeText, fields as known, textOf } from '@core/episode/fields'
import { hindering, hindranceNeeds } from '@core/release/readiness'
import type { WordsOrStatus } from '../../show/episodes/change'
import type { Episode } from '../../show/episodes/models'
import { hindrancesNow } from '../../show/episodes/readiness'
import { dating } from './changes'
import type { Done } from './models'

/** What takes a change back, or why it stays; neither where there is nothing to take back. */
interface Back {
  change?: WordsOrStatus
  left?: string
}

/** What takes it back from one of them; what was done to it since stays, and is told. */
export function backOf(episode: Episode, done: Done, now: Date): Back {
  if ('isRemoved' in done) return episode.deletedAt ? { change: { fields: { deletedAt: null } } } : {}
  if (episode.deletedAt) return { left: 'It was removed since.' }
  if ('wasScheduled' in done) return scheduledAgain(episode, done.wasScheduled, now)
  if ('dated' in done) return datedBefore(episode, done.dated, now)
  const names = Object.keys(done.after) as EpisodeField[]
  const text = textOf(episode)
  const merged = names.map(name => [
    name,
    (known[name] as Field).merge(done.after[name], done.before[name], text[name]) as unknown,
  ])
  if (merged.some(([, value]) => value === conflict)) return { left: 'It was written again since.' }
  return { change: { fields: Object.fromEntries(merged) as Partial<EpisodeText>, act: 'many at once' } }
}

/** The date that it had before; what went out meanwhile and had not is taken out of the feed again. */
function datedBefore(
  { status, releaseAt }: Episode,
  { from, to }: Extract<Done, { dated: unknown }>['dated'],
  now: Date,
): Back {
  if (+(releaseAt ?? NaN) !== +new Date(to)) return { left: 'It was given another date since.' }
  const before = from.at === null ? null : new Date(from.at)
  if (status === 'released' && from.status === 'released')
    return { change: { isInFeed: true, fields: { releaseAt: before, releaseZone: from.zone } } }
  if (status === 'released')
    return {
      change: { step: 'retire', isInFeed: true },
      left: 'It had gone out, so it was taken out of the feed. Apps that have it may keep it.',
    }
  if (status !== 'scheduled') return { left: `It is ${status} by now.` }
  if (from.status === 'draft') return { change: { step: 'unschedule', fields: { releaseAt: null, releaseZone: null } } }
  if (before! <= now) return { left: 'The time that it had before has passed.' }
  return { change: dating(status, before!, from.zone) }
}

function scheduledAgain(episode: Episode, { at, zone }: { at: string; zone: string | null }, now: Date): Back {
  if (episode.status !== 'draft') return { left: `It is ${episode.status} by now.` }
  if (new Date(at) <= now) return { left: 'Its time has passed.' }
  const missing = hindering('schedule', hindrancesNow(episode))
  if (missing.length > 0) return { left: `It lacks ${missing.map(each => hindranceNeeds[each]).join(' and ')} by now.` }
  return { change: { step: 'schedule', fields: { releaseAt: new Date(at), releaseZone: zone } } }
}
