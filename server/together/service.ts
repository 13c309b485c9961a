import { literal, type Transaction, type WhereOptions } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { TogetherChange, TogetherDone, TogetherLook, TogetherOutlook, TogetherTakenBack } from '@contract/together'
import { conflict, type Field } from '@core/episode/field'
import { type EpisodeField, type EpisodeText, fields as known, textOf } from '@core/episode/fields'
import {
  type Affected,
  mayTogether,
  type Outcome,
  outcomesOf,
  outcomeWords,
  type Together,
} from '@core/episode/together'
import { missingForRelease } from '@core/release/standing'
import type { Scope } from '../access/scope'
import { transact } from '../database/transact'
import { episodeChanges, type WordsOrStanding } from '../episodes/change'
import { Episode, EpisodeFile } from '../episodes/models'
import { fileIdOf } from '../episodes/roles'
import { AppError } from '../errors'
import type { Platform } from '../platform'
import { ChangeTogether, type Done } from './models'

/** What takes a change back, or why it stays; neither where there is nothing to take back. */
interface Back {
  change?: WordsOrStanding
  left?: string
}

/** One change of many episodes: looked at before, made as it was looked at or not at all, and taken back with one press. */
export function togetherService(platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events'>) {
  const { database, clock } = platform
  const { applyAll } = episodeChanges(platform)

  return {
    /** What it would make of them. Throws `not-allowed`. */
    async look(scope: Scope, { episodes: which, change }: TogetherLook): Promise<TogetherOutlook> {
      needMay(scope, change)
      const all = await inOrder({
        showId: scope.showId,
        deletedAt: null,
        ...(Array.isArray(which) && { id: which }),
      })
      const episodes = typeof which === 'object' && 'from' in which ? behind(all, which.from) : all
      const affected = episodes.map(affectedOf)
      const outcomes = outcomesOf(change, affected)
      const told = episodes.map(({ id, title }, at) => ({ id, title, outcome: outcomes[at]!, of: affected[at]! }))
      return {
        episodes: episodes.map(({ id, version }) => ({ id, version })),
        changes: told
          .filter(({ outcome }) => isChange(outcome))
          .map(({ id, title, outcome, of }) => ({ id, title, ...outcomeWords(of, outcome) })),
        refused: told.flatMap(({ id, title, outcome }) =>
          outcome && 'refused' in outcome ? [{ id, title, why: outcome.refused }] : [],
        ),
        same: outcomes.filter(outcome => outcome === null).length,
      }
    },

    /** Makes it of all of them, or of none. Throws `version-conflict` where one is not as it was looked at, and `not-allowed`. */
    async change(scope: Scope, { episodes: seen, change }: TogetherChange): Promise<TogetherDone> {
      needMay(scope, change)
      return transact(database, async transaction => {
        const versions = new Map(seen.map(({ id, version }) => [id, version]))
        const episodes = await locked(scope, [...versions.keys()], transaction)
        needSame(episodes, versions)
        const outcomes = outcomesOf(change, episodes.map(affectedOf))
        const changing = episodes.flatMap((episode, at) => {
          const outcome = outcomes[at]!
          return isChange(outcome)
            ? [{ episode, change: changeOf(outcome, clock.now()), done: doneOf(episode, outcome) }]
            : []
        })
        const done = changing.map(each => each.done)
        await applyAll(changing, transaction, scope.accountId)
        const id = uuidV7()
        const { showId, accountId } = scope
        await ChangeTogether.create(
          { id, showId, accountId, act: change, episodes: done, at: clock.now() },
          { transaction },
        )
        return { id, changed: done.length }
      })
    },

    /** Takes it back, but for what has been changed again since. Once taken back, nothing is left of it to take back. */
    async takeBack(scope: Scope, id: string): Promise<TogetherTakenBack> {
      return transact(database, async transaction => {
        const made = await ChangeTogether.findOne({ where: { id, showId: scope.showId }, lock: true, transaction })
        if (!made) throw new AppError('not-found', 'There is no such change of many episodes here, or not any more.')
        needMay(scope, made.act)
        if (made.takenBack) return { changed: 0, left: [] }
        const done = new Map(made.episodes.map(each => [each.id, each]))
        const episodes = await locked(scope, [...done.keys()], transaction, 'also removed')
        const backs = episodes.map(episode => ({ episode, ...backOf(episode, done.get(episode.id)!, clock.now()) }))
        const changing = backs.flatMap(({ episode, change }) => (change ? [{ episode, change }] : []))
        await applyAll(changing, transaction, scope.accountId)
        const left = backs.flatMap(({ episode: { id: episodeId, title }, left: why }) =>
          why ? [{ id: episodeId, title, why }] : [],
        )
        await made.update({ takenBack: true }, { transaction })
        return { changed: changing.length, left }
      })
    },
  }
}

/** One episode and all behind it; none where it is not there. */
function behind(all: readonly Episode[], from: string): readonly Episode[] {
  const at = all.findIndex(({ id }) => id === from)
  return at < 0 ? [] : all.slice(at)
}

function needMay({ role }: Scope, change: Together): void {
  if (!mayTogether(role, change)) throw new AppError('not-allowed', `Who is a ${role} of this show cannot do that.`)
}

/** Episodes in the order in which they go out; what has no moment yet comes last, as it was begun. */
const inOrder = (where: WhereOptions<Episode>, transaction?: Transaction): Promise<Episode[]> =>
  Episode.findAll({
    where,
    order: [
      [literal('release_at IS NULL'), 'ASC'],
      ['releaseAt', 'ASC'],
      ['createdAt', 'ASC'],
      ['id', 'ASC'],
    ],
    ...(transaction && { lock: true, transaction }),
  })

/** The same, locked, with which files they have. */
async function locked(
  { showId }: Scope,
  ids: readonly string[],
  transaction: Transaction,
  which: 'on the list' | 'also removed' = 'on the list',
): Promise<Episode[]> {
  const where = { showId, id: [...ids], ...(which === 'on the list' && { deletedAt: null }) }
  const episodes = await inOrder(where, transaction)
  const files = new Map(episodes.map(({ id }) => [id, [] as EpisodeFile[]]))
  for (const file of await EpisodeFile.findAll({ where: { episodeId: [...ids] }, transaction }))
    files.get(file.episodeId)?.push(file)
  for (const episode of episodes) episode.files = files.get(episode.id)!
  return episodes
}

function needSame(episodes: readonly Episode[], versions: ReadonlyMap<string, number>): void {
  const other = episodes.find(({ id, version }) => versions.get(id) !== version)
  if (other)
    throw new AppError(
      'version-conflict',
      `“${other.title || 'Untitled'}” was changed meanwhile, so nothing was done. Look again at what would change.`,
    )
  if (episodes.length !== versions.size)
    throw new AppError(
      'version-conflict',
      'One of the episodes was removed meanwhile, so nothing was done. Look again at what would change.',
    )
}

const affectedOf = (episode: Episode): Affected => ({ text: textOf(episode), standing: episode.standing })

type RealOutcome = Exclude<NonNullable<Outcome>, { refused: string }>
const isChange = (outcome: Outcome): outcome is RealOutcome => outcome !== null && !('refused' in outcome)

function changeOf(outcome: RealOutcome, now: Date): WordsOrStanding {
  if ('text' in outcome) return { fields: outcome.text, act: 'many at once' }
  if ('step' in outcome) return { step: outcome.step, fields: { releaseAt: null, releaseZone: null } }
  return { fields: { deletedAt: now } }
}

function doneOf(episode: Episode, outcome: RealOutcome): Done {
  const { id, releaseAt, releaseZone } = episode
  if ('step' in outcome) return { id, wasScheduled: { at: releaseAt!.toISOString(), zone: releaseZone } }
  if ('isRemoved' in outcome) return { id, isRemoved: true }
  const text = textOf(episode)
  const names = Object.keys(outcome.text) as EpisodeField[]
  return { id, before: partOf(text, names), after: outcome.text }
}

const partOf = (text: EpisodeText, names: readonly EpisodeField[]): Partial<EpisodeText> =>
  Object.fromEntries(names.map(name => [name, text[name]]))

/** What takes it back from one of them; what was done to it since stays, and is told. */
function backOf(episode: Episode, done: Done, now: Date): Back {
  if ('isRemoved' in done) return episode.deletedAt ? { change: { fields: { deletedAt: null } } } : {}
  if (episode.deletedAt) return { left: 'It was removed since.' }
  if ('wasScheduled' in done) return scheduledAgain(episode, done.wasScheduled, now)
  const names = Object.keys(done.after) as EpisodeField[]
  const text = textOf(episode)
  const merged = names.map(name => [
    name,
    (known[name] as Field).merge(done.after[name], done.before[name], text[name]) as unknown,
  ])
  if (merged.some(([, value]) => value === conflict)) return { left: 'It was written again since.' }
  return { change: { fields: Object.fromEntries(merged) as Partial<EpisodeText>, act: 'many at once' } }
}

function scheduledAgain(episode: Episode, { at, zone }: { at: string; zone: string | null }, now: Date): Back {
  if (episode.standing !== 'draft') return { left: `It is ${episode.standing} by now.` }
  if (new Date(at) <= now) return { left: 'Its time has passed.' }
  const hasAudio = fileIdOf(episode, 'source') !== null
  if (missingForRelease({ title: episode.title, hasAudio }).length > 0)
    return { left: 'It lacks audio or a title by now.' }
  return { change: { step: 'schedule', fields: { releaseAt: new Date(at), releaseZone: zone } } }
}
