import { conflict, type Field } from '@core/episode/field'
import { type EpisodeField, type EpisodeText, fields as known, textOf } from '@core/episode/fields'
import { missingForRelease } from '@core/release/standing'
import type { WordsOrStanding } from '../episodes/change'
import type { Episode } from '../episodes/models'
import { fileIdOf } from '../episodes/roles'
import { dating } from './changes'
import type { Done } from './models'

/** What takes a change back, or why it stays; neither where there is nothing to take back. */
interface Back {
  change?: WordsOrStanding
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
  { standing, releaseAt }: Episode,
  { from, to }: Extract<Done, { dated: unknown }>['dated'],
  now: Date,
): Back {
  if (+(releaseAt ?? NaN) !== +new Date(to)) return { left: 'It was given another date since.' }
  const before = from.at === null ? null : new Date(from.at)
  if (standing === 'released' && from.standing === 'released')
    return { change: { isInFeed: true, fields: { releaseAt: before, releaseZone: from.zone } } }
  if (standing === 'released')
    return {
      change: { step: 'retire', isInFeed: true },
      left: 'It had gone out, so it was taken out of the feed. Apps that have it may keep it.',
    }
  if (standing !== 'scheduled') return { left: `It is ${standing} by now.` }
  if (from.standing === 'draft')
    return { change: { step: 'unschedule', fields: { releaseAt: null, releaseZone: null } } }
  if (before! <= now) return { left: 'The time that it had before has passed.' }
  return { change: dating(standing, before!, from.zone) }
}

function scheduledAgain(episode: Episode, { at, zone }: { at: string; zone: string | null }, now: Date): Back {
  if (episode.standing !== 'draft') return { left: `It is ${episode.standing} by now.` }
  if (new Date(at) <= now) return { left: 'Its time has passed.' }
  const hasAudio = fileIdOf(episode, 'source') !== null
  if (missingForRelease({ title: episode.title, hasAudio }).length > 0)
    return { left: 'It lacks audio or a title by now.' }
  return { change: { step: 'schedule', fields: { releaseAt: new Date(at), releaseZone: zone } } }
}
