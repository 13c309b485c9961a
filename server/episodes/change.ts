import type { Transaction } from 'sequelize'
import { differingFields, textOf } from '@core/episode/fields'
import { readSnapshot } from '@core/episode/snapshot'
import { after, type Step } from '@core/release/standing'
import type { Scope } from '../access/scope'
import { transact } from '../database/transact'
import { AppError } from '../errors'
import { keepState } from '../history/keep'
import type { NewJob } from '../jobs/jobs'
import { publish } from '../pictures/artwork'
import type { Platform } from '../platform'
import { touchFeed } from '../shows/feedRevision'
import { Episode, type FileRole } from './models'
import { deliveredFileId, fileIdOf, giveRoles, loadRoles } from './roles'

/** Where an episode is: a scope, or the episode itself. */
export type InShow = Pick<Scope, 'id' | 'showId'> & Partial<Pick<Scope, 'accountId'>>

/** Columns of an episode's sound: they change with its sound's version. */
type SoundColumn = 'recipe' | 'finishing' | 'finishedWith' | 'finishProblem'
type KeptColumn =
  'id' | 'showId' | 'guid' | 'standing' | 'isChanged' | 'version' | 'soundVersion' | 'createdAt' | 'updatedAt'

/** What becomes of an episode, and what goes with it. */
export interface Change {
  /** What is written about it, and when it goes out. */
  fields?: Partial<Omit<Episode['_attributes'], KeptColumn | SoundColumn>>
  /** What becomes of its sound. */
  sound?: Partial<Pick<Episode, SoundColumn>>
  /** Which files it has from then on; null takes one away. */
  files?: Partial<Record<FileRole, string | null>>
  /** Moves it to where the step leads. Refused with `wrong-standing` where that cannot be taken from where it stands. */
  step?: Step
  /** Whether feed and pages tell something else from then on. */
  isInFeed?: boolean
  jobs?: readonly NewJob[]
  /** How its text came to be another; on the desk where nothing is said. */
  act?: 'written' | 'filled in' | 'many at once'
}

/** Sees the episode under its lock, with which files it has, and decides what becomes of it; null: it stays as it is. */
export type Decision = (episode: Episode, transaction: Transaction) => Promise<Change | null>

/** The versions that a window has seen: of the episode, of its sound. What is not named may be any. */
export interface Seen {
  version?: number | undefined
  soundVersion?: number | undefined
}

/**
 * The one way to change an episode: its row is locked, its version looked at, the rule of its standings kept, and the
 * change written together with its jobs, its show's feed revision and the news of it, in one transaction.
 */
export function episodeChanges(platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events'>) {
  const { database, clock, jobs, events } = platform

  /** Writes a decided change of an episode that is locked; the feed's revision is left to whoever changes many. */
  async function apply(
    episode: Episode,
    { fields, sound, files, step, jobs: added = [], act = 'written' }: Change,
    transaction: Transaction,
    accountId: string | null = null,
  ): Promise<void> {
    const [before, beforeAt] = [textOf(episode), episode.updatedAt]
    const standing = step ? after(step, episode.standing) : episode.standing
    if (!standing) throw new AppError('wrong-standing', `The episode is ${episode.standing} by now.`)
    if (files) await giveRoles(episode, files, transaction)
    episode.set({ ...fields, ...sound, standing })
    const isSound = sound !== undefined || files?.source !== undefined || files?.finished !== undefined
    episode.set({
      isChanged: isOtherThanReleased(episode),
      ...((fields || step) && { version: episode.version + 1, updatedAt: clock.now() }),
      ...(isSound && { soundVersion: episode.soundVersion + 1 }),
    })
    await episode.save({ transaction })
    if (fields) {
      const { id: episodeId, version } = episode
      const saved = { episodeId, before, beforeAt, after: textOf(episode), version, accountId, act, at: clock.now() }
      await keepState({ ...saved, isSent: fields.released != null }, transaction)
    }
    if (fields?.released?.text.artworkId) await publish(fields.released.text.artworkId, transaction)
    for (const job of added) await jobs.add({ showId: episode.showId, ...job }, transaction)
    await events.note({ kind: 'episode', showId: episode.showId, id: episode.id }, transaction)
  }

  return {
    apply,

    /**
     * Changes an episode that is still as a window has seen it. Throws `not-found`, `version-conflict`, `wrong-standing`, and
     * whatever the decision throws.
     */
    async changeEpisode(
      place: InShow,
      seen: Seen,
      decide: Decision,
      which: 'on the list' | 'also removed' = 'on the list',
    ): Promise<void> {
      await transact(database, async transaction => {
        const episode = await lockEpisode(place, transaction)
        if (episode.deletedAt && which === 'on the list') throw noSuchEpisode()
        if (isOlder(seen.version, episode.version))
          throw new AppError(
            'version-conflict',
            'The episode was changed in another window. Look at it and decide again.',
          )
        if (isOlder(seen.soundVersion, episode.soundVersion))
          throw new AppError(
            'version-conflict',
            'The episode’s sound was changed in another window, or has been finished meanwhile. Look at it and decide again.',
          )
        const change = await decide(episode, transaction)
        if (!change) return
        await apply(episode, change, transaction, place.accountId)
        if (change.isInFeed) await touchFeed(platform, episode.showId, transaction)
      })
    },
  }
}

const isOlder = (seen: number | undefined, now: number): boolean => seen !== undefined && seen !== now

/** Whether the feed has another text, or another file, than a sending now would give it. */
export function isOtherThanReleased(episode: Episode): boolean {
  if (!episode.released) return false
  return (
    deliveredFileId(episode) !== fileIdOf(episode, 'released') ||
    differingFields(textOf(episode), readSnapshot(episode.released)).length > 0
  )
}

const noSuchEpisode = (): AppError => new AppError('not-found', 'There is no such episode.')

async function lockEpisode({ id, showId }: InShow, transaction: Transaction): Promise<Episode> {
  const episode = await Episode.findOne({ where: { id, showId }, lock: true, transaction })
  if (!episode) throw noSuchEpisode()
  return loadRoles(episode, transaction)
}
