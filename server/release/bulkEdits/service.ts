import { literal, Op, type Transaction, type WhereOptions } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type {
  BulkEditRequest,
  BulkEditResult,
  BulkEditQuery,
  BulkEditHistory,
  BulkEditPreview,
  BulkEditUndone,
} from '@contract/bulkEdits'
import { arranged, isDated } from '@core/episode/dating'
import { textOf } from '@core/episode/fields'
import {
  type Affected,
  mayBulkEdit,
  type Outcome,
  outcomesOf,
  outcomeWords,
  type BulkEdit,
} from '@core/episode/bulkEdit'
import type { Around } from '@core/release/layout'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { episodeChanges, type WordsOrStatus } from '../../show/episodes/change'
import { Episode, EpisodeFile } from '../../show/episodes/models'
import { hindrancesNow } from '../../show/episodes/readiness'
import { fileIn } from '../../show/episodes/roles'
import { AppError } from '../../platform/http/errors'
import { AudioFile } from '../../media/files/models'
import type { Platform } from '../../platform/platform'
import { lookBefore } from '../../production/remote/looks'
import { touchFeed } from '../../show/shows/feedRevision'
import { Show } from '../../show/shows/models'
import { backOf } from './backs'
import { changeOf, doneOf, isChange } from './changes'
import { BulkEditRow } from './models'

const mostMade = 10

/** One change of many episodes: looked at before, made as it was looked at or not at all, and taken back with one press. */
export function bulkEditService(platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration'>) {
  const { database, clock, jobs } = platform
  const { applyAll } = episodeChanges(platform)

  /** Makes decided changes, and lets feed and lookouts know where dates are others by then. */
  async function makeAll(
    { showId, accountId }: Scope,
    changing: readonly { episode: Episode; change: WordsOrStatus }[],
    transaction: Transaction,
  ): Promise<void> {
    await applyAll(changing, transaction, accountId)
    if (changing.some(({ change }) => change.isInFeed)) await touchFeed(platform, showId, transaction)
    const now = clock.now()
    for (const { episode, change } of changing) {
      if (change.step !== 'schedule') continue
      const file = fileIn(episode, 'source')
      if (file?.address) await jobs.add(lookBefore(episode.releaseAt!, file, now), transaction)
    }
  }

  /** What stands around the dates of some episodes of a show. */
  async function around(showId: string, episodes: readonly Episode[], transaction?: Transaction): Promise<Around> {
    const show = await Show.findByPk(showId, { attributes: ['rhythm', 'zone'], rejectOnEmpty: true, transaction })
    const others = await Episode.findAll({
      where: {
        showId,
        deletedAt: null,
        status: ['scheduled', 'released'],
        id: { [Op.notIn]: episodes.map(({ id }) => id) },
      },
      attributes: ['releaseAt'],
      raw: true,
      transaction,
    })
    const taken = others.map(({ releaseAt }) => releaseAt!)
    return { rhythm: show.rhythm, zone: show.zone, taken, now: clock.now() }
  }

  return {
    /** What it would make of them. Throws `not-allowed`. */
    async look(scope: Scope, { episodes: which, change }: BulkEditQuery): Promise<BulkEditPreview> {
      needMay(scope, change)
      const found = await inOrder({
        showId: scope.showId,
        deletedAt: null,
        ...(Array.isArray(which) && { id: which }),
      })
      await withSources(found)
      const all = Array.isArray(which) ? asListed(change, found, which) : found
      const episodes = arrangedEpisodes(
        change,
        typeof which === 'object' && 'from' in which ? behind(all, which.from) : all,
      )
      const affected = episodes.map(affectedOf)
      const circumstances = await around(scope.showId, isDated(change) ? episodes : [])
      const outcomes = outcomesOf(change, affected, circumstances)
      const told = episodes.map(({ id, title }, at) => ({ id, title, outcome: outcomes[at]!, of: affected[at]! }))
      const dated = told.flatMap(({ outcome, of }) => (outcome && 'at' in outcome ? [{ at: outcome.at, of }] : []))
      return {
        atOnce: dated.filter(({ at, of }) => of.status !== 'released' && at <= circumstances.now).length,
        redated: dated.filter(({ of }) => of.status === 'released').length,
        episodes: episodes.map(({ id, version }) => ({ id, version })),
        changes: told
          .filter(({ outcome }) => isChange(outcome))
          .map(({ id, title, outcome, of }) => ({
            id,
            title,
            ...outcomeWords(of, outcome, circumstances),
            at: outcome && 'at' in outcome ? outcome.at.toISOString() : null,
          })),
        refused: told.flatMap(({ id, title, outcome }) =>
          outcome && 'refused' in outcome ? [{ id, title, why: outcome.refused }] : [],
        ),
        same: outcomes.filter(outcome => outcome === null).length,
      }
    },

    /** Makes it of all of them, or of none. Throws `version-conflict` where one is not as it was looked at, and `not-allowed`. */
    async change(scope: Scope, { episodes: seen, change }: BulkEditRequest): Promise<BulkEditResult> {
      needMay(scope, change)
      return transact(database, async transaction => {
        const versions = new Map(seen.map(({ id, version }) => [id, version]))
        const found = await locked(scope, [...versions.keys()], transaction)
        needSame(found, versions)
        const episodes = arrangedEpisodes(change, asListed(change, found, [...versions.keys()]))
        const circumstances = await around(scope.showId, isDated(change) ? episodes : [], transaction)
        const outcomes = outcomesOf(change, episodes.map(affectedOf), circumstances)
        needPromised(episodes, outcomes, seen)
        const changing = episodes.flatMap((episode, at) => {
          const outcome = outcomes[at]!
          return isChange(outcome)
            ? [{ episode, change: changeOf(episode, outcome, circumstances), done: doneOf(episode, outcome) }]
            : []
        })
        const done = changing.map(each => each.done)
        await makeAll(scope, changing, transaction)
        const id = uuidV7()
        const { showId, accountId } = scope
        await BulkEditRow.create(
          { id, showId, accountId, act: change, episodes: done, at: clock.now() },
          { transaction },
        )
        return { id, changed: done.length }
      })
    },

    /** Takes it back, but for what has been changed again since. Once taken back, nothing is left of it to take back. */
    async takeBack(scope: Scope, id: string, only?: readonly string[]): Promise<BulkEditUndone> {
      return transact(database, async transaction => {
        const made = await BulkEditRow.findOne({ where: { id, showId: scope.showId }, lock: true, transaction })
        if (!made) throw new AppError('not-found', 'There is no such change of many episodes here, or not any more.')
        needMay(scope, made.act)
        if (made.takenBack) return { changed: 0, left: [] }
        const wanted = only && new Set(only)
        const done = new Map(made.episodes.flatMap(each => (wanted && !wanted.has(each.id) ? [] : [[each.id, each]])))
        const episodes = await locked(scope, [...done.keys()], transaction, 'also removed')
        const backs = episodes.map(episode => ({ episode, ...backOf(episode, done.get(episode.id)!, clock.now()) }))
        const changing = backs.flatMap(({ episode, change }) => (change ? [{ episode, change }] : []))
        await makeAll(scope, changing, transaction)
        const left = backs.flatMap(({ episode: { id: episodeId, title }, left: why }) =>
          why ? [{ id: episodeId, title, why }] : [],
        )
        const rest = made.episodes.filter(each => !done.has(each.id))
        await made.update(rest.length > 0 ? { episodes: rest } : { takenBack: true }, { transaction })
        return { changed: changing.length, left }
      })
    },

    /** What was done last and can be taken back. */
    async made({ showId, role }: Scope): Promise<BulkEditHistory> {
      const rows = await BulkEditRow.findAll({
        where: { showId, takenBack: false },
        order: [['at', 'DESC']],
        limit: mostMade,
      })
      const changes = rows
        .filter(({ act }) => mayBulkEdit(role, act))
        .map(({ id, act, episodes, at }) => ({ id, kind: act.kind, changed: episodes.length, at: at.toISOString() }))
      return { changes }
    },
  }
}

/** Episodes as somebody has listed them, where the change goes by that. */
function asListed(change: BulkEdit, episodes: readonly Episode[], ids: readonly string[]): readonly Episode[] {
  if (change.kind !== 'lay out') return episodes
  const places = new Map(ids.map((id, at) => [id, at]))
  return episodes.toSorted((one, other) => places.get(one.id)! - places.get(other.id)!)
}

/** In the order in which the change counts them. */
function arrangedEpisodes(change: BulkEdit, episodes: readonly Episode[]): readonly Episode[] {
  if (!isDated(change)) return episodes
  return arranged(
    change,
    episodes.map(episode => ({ ...affectedOf(episode), episode })),
  ).map(({ episode }) => episode)
}

/** Where the dates are not those that were looked at, nothing is done. */
function needPromised(
  episodes: readonly Episode[],
  outcomes: readonly Outcome[],
  seen: BulkEditRequest['episodes'],
): void {
  const promised = new Map(seen.flatMap(({ id, at }) => (at === undefined ? [] : [[id, +new Date(at)]])))
  const isOther = episodes.some(({ id }, index) => {
    const outcome = outcomes[index]
    return promised.has(id) && !(outcome && 'at' in outcome && +outcome.at === promised.get(id))
  })
  if (isOther)
    throw new AppError(
      'version-conflict',
      'Something else goes out on one of these days by now, so nothing was done. Look again at the dates.',
    )
}

/** One episode and all behind it; none where it is not there. */
function behind(all: readonly Episode[], from: string): readonly Episode[] {
  const at = all.findIndex(({ id }) => id === from)
  return at < 0 ? [] : all.slice(at)
}

function needMay({ role }: Scope, change: BulkEdit): void {
  if (!mayBulkEdit(role, change)) throw new AppError('not-allowed', `Who is a ${role} of this show cannot do that.`)
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
  return withSources(episodes, transaction)
}

/** Gives episodes which files they have, with what their sources are called, where they are and whether they can go out. */
async function withSources(episodes: Episode[], transaction?: Transaction): Promise<Episode[]> {
  const files = new Map(episodes.map(({ id }) => [id, [] as EpisodeFile[]]))
  const all = await EpisodeFile.findAll({
    where: { episodeId: [...files.keys()] },
    include: [{ model: AudioFile, as: 'file', attributes: ['id', 'showId', 'name', 'address', 'type', 'reachable'] }],
    transaction,
  })
  for (const file of all) files.get(file.episodeId)?.push(file)
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

const affectedOf = (episode: Episode): Affected => ({
  text: textOf(episode),
  status: episode.status,
  releaseAt: episode.releaseAt,
  fileName: fileIn(episode, 'source')?.name ?? null,
  hindrances: hindrancesNow(episode),
})
