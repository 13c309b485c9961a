import type { Transaction } from 'sequelize'
import { after, type Step } from '@core/release/standing'
import type { Scope } from '../access/scope'
import { transact } from '../database/transact'
import { AppError } from '../errors'
import type { NewJob } from '../jobs/jobs'
import type { Platform } from '../platform'
import { touchFeed } from '../shows/feedRevision'
import { Episode } from './models'

/** Where an episode is: a scope, or the episode itself. */
export type InShow = Pick<Scope, 'id' | 'showId'>

/** What becomes of an episode, and what goes with it. */
export interface Change {
  fields?: Partial<Omit<Episode['_attributes'], 'id' | 'showId' | 'guid' | 'standing' | 'version' | 'updatedAt'>>
  /** Moves it to where the step leads. Refused with `wrong-standing` where that cannot be taken from where it stands. */
  step?: Step
  /** Whether feed and pages tell something else from then on. */
  isInFeed?: boolean
  jobs?: readonly NewJob[]
}

/** Sees the episode under its lock and decides what becomes of it; null: it stays as it is. */
export type Decision = (episode: Episode, transaction: Transaction) => Promise<Change | null>

/**
 * The one way to change an episode: its row is locked, its version looked at, the rule of its standings kept, and the
 * change written together with its jobs, its show's feed revision and the news of it, in one transaction.
 */
export function episodeChanges({ database, clock, jobs, events }: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events'>) {
  /** Writes a decided change of an episode that is locked; the feed's revision is left to whoever changes many. */
  async function apply(episode: Episode, { fields, step, jobs: added = [] }: Change, transaction: Transaction): Promise<void> {
    const standing = step ? after(step, episode.standing) : episode.standing
    if (!standing) throw new AppError('wrong-standing', `The episode is ${episode.standing} by now.`)
    await episode.update({ ...fields, standing, version: episode.version + 1, updatedAt: clock.now() }, { transaction })
    for (const job of added) await jobs.add({ showId: episode.showId, ...job }, transaction)
    await events.note({ kind: 'episode', showId: episode.showId, id: episode.id }, transaction)
  }

  return {
    apply,

    /**
     * Changes an episode that is still the version a window has seen, or whichever it is where `version` is null. Throws
     * `not-found`, `version-conflict`, `wrong-standing`, and whatever the decision throws.
     */
    async changeEpisode(place: InShow, version: number | null, decide: Decision, which: 'on the list' | 'also removed' = 'on the list'): Promise<void> {
      await transact(database, async transaction => {
        const episode = await lockEpisode(place, transaction)
        if (episode.deletedAt && which === 'on the list') throw noSuchEpisode()
        if (version !== null && episode.version !== version) throw new AppError('version-conflict', 'The episode was changed in another window. Look at it and decide again.')
        const change = await decide(episode, transaction)
        if (!change) return
        await apply(episode, change, transaction)
        if (change.isInFeed) await touchFeed(episode.showId, clock.now(), transaction)
      })
    },
  }
}

const noSuchEpisode = (): AppError => new AppError('not-found', 'There is no such episode.')

async function lockEpisode({ id, showId }: InShow, transaction: Transaction): Promise<Episode> {
  const episode = await Episode.findOne({ where: { id, showId }, lock: true, transaction })
  if (!episode) throw noSuchEpisode()
  return episode
}
