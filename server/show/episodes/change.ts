import type { Transaction } from 'sequelize'
import { differingFields, picturesIn, textOf } from '@core/episode/fields'
import { readSnapshot } from '@core/episode/snapshot'
import { after, type Step } from '@core/release/status'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { AppError } from '../../platform/http/errors'
import { keepState, keepStates, type Saving } from '../history/keep'
import type { NewJob } from '../../platform/jobs/jobs'
import { publish } from '../../media/pictures/artwork'
import type { Platform } from '../../platform/platform'
import { touchFeed } from '../shows/feedRevision'
import { holdMixed } from './mixed'
import { Episode, type FileRole } from './models'
import { deliveredFileId, fileIdOf, giveReleased, giveRoles, loadRoles } from './roles'

/** Where an episode is: a scope, or the episode itself. */
export type InShow = Pick<Scope, 'id' | 'showId'> & Partial<Pick<Scope, 'accountId'>>

/** Columns of an episode's sound: they change with its sound's version. */
type SoundColumn = 'recipe' | 'finishing' | 'finishedWith' | 'finishProblem'
type KeptColumn =
  | 'id'
  | 'showId'
  | 'guid'
  | 'transcriptsVersion'
  | 'status'
  | 'isChanged'
  | 'version'
  | 'soundVersion'
  | 'createdAt'
  | 'updatedAt'

/** What becomes of an episode, and what goes with it. */
export interface Change {
  /** What is written about it, and when it goes out. */
  fields?: Partial<Omit<Episode['_attributes'], KeptColumn | SoundColumn>>
  /** What becomes of its sound. */
  sound?: Partial<Pick<Episode, SoundColumn>>
  /** Which files it has from then on; null takes one away. */
  files?: Partial<Record<FileRole, string | null>>
  /** Moves it to where the step leads. Refused with `wrong-status` where that cannot be taken from where it stands. */
  step?: Step
  /** Whether feed and pages tell something else from then on. */
  isInFeed?: boolean
  /** Whether one of its transcripts becomes another, which is written beside it. */
  transcripts?: true
  jobs?: readonly NewJob[]
  /** How its text came to be another; on the desk where nothing is said. */
  act?: 'written' | 'filled in' | 'many at once'
}

/** A change that does not touch its source. */
export type WordsOrStatus = Pick<Change, 'fields' | 'step' | 'act' | 'isInFeed'> & {
  files?: { released: string }
}

/** An episode with what becomes of it. */
export interface Decided {
  episode: Episode
  change: WordsOrStatus
}

/** Sees the episode under its lock, with which files it has, and decides what becomes of it; null: it stays as it is. */
export type Decision = (episode: Episode, transaction: Transaction) => Promise<Change | null>

/** The versions that a window has seen: of the episode, of its sound. What is not named may be any. */
export interface Seen {
  version?: number | undefined
  soundVersion?: number | undefined
}

/**
 * The one way to change an episode: its row is locked, its version looked at, the rule of its statuses kept, and the
 * change written together with its jobs, its show's feed revision and the news of it, in one transaction.
 */
export function episodeChanges(platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration'>) {
  const { database, clock, jobs, events } = platform

  /** Makes an episode what the change says, but for its files; answers what is to be kept of its text. */
  function set(
    episode: Episode,
    { fields, sound, files, step, transcripts, act = 'written' }: Change,
    accountId: string | null,
  ): Saving | null {
    const status = step ? after(step, episode.status) : episode.status
    if (!status) throw new AppError('wrong-status', `The episode is ${episode.status} by now.`)
    const [before, beforeAt, at] = [textOf(episode), episode.updatedAt, clock.now()]
    episode.set({ ...fields, ...sound, status })
    if (transcripts) episode.set({ transcriptsVersion: episode.transcriptsVersion + 1 })
    const isSound = sound !== undefined || files?.source !== undefined || files?.finished !== undefined
    episode.set({
      isChanged: isOtherThanReleased(episode),
      ...((fields || step) && { version: episode.version + 1, updatedAt: at }),
      ...(isSound && { soundVersion: episode.soundVersion + 1 }),
    })
    const { id: episodeId, version } = episode
    const isSent = fields?.released != null
    return fields ? { episodeId, before, beforeAt, after: textOf(episode), version, accountId, act, isSent, at } : null
  }

  /** Writes a decided change of an episode that is locked; the feed's revision is left to whoever changes many. */
  async function apply(
    episode: Episode,
    change: Change,
    transaction: Transaction,
    accountId: string | null = null,
  ): Promise<void> {
    const { fields, files, jobs: added = [] } = change
    if (files) await giveRoles(episode, files, transaction)
    const saving = set(episode, change, accountId)
    if (fields?.mix !== undefined || files?.source !== undefined) await holdMixed(episode, transaction)
    await episode.save({ transaction })
    if (saving) await keepState(saving, transaction)
    if (fields?.released) await publish(picturesIn(readSnapshot(fields.released)), transaction)
    for (const job of added) await jobs.add({ showId: episode.showId, ...job }, transaction)
    await events.note({ kind: 'episode', showId: episode.showId, id: episode.id }, transaction)
  }

  /**
   * Writes decided changes of words and statuses of many episodes that are locked and know their files; the feed's revision is
   * left to whoever changes them.
   */
  async function applyAll(
    decided: readonly Decided[],
    transaction: Transaction,
    accountId: string | null,
  ): Promise<void> {
    await giveReleased(
      decided.flatMap(({ episode, change: { files } }) => (files ? [{ episode, fileId: files.released }] : [])),
      transaction,
    )
    const savings: Saving[] = []
    for (const { episode, change } of decided) {
      const saving = set(episode, change, accountId)
      if (saving) savings.push(saving)
    }
    await Promise.all(decided.map(({ episode }) => episode.save({ transaction })))
    await keepStates(savings, transaction)
    const pictures = decided.flatMap(({ change: { fields } }) =>
      fields?.released ? picturesIn(readSnapshot(fields.released)) : [],
    )
    await publish([...new Set(pictures)], transaction)
    await events.note(
      decided.map(({ episode: { id, showId } }) => ({ kind: 'episode' as const, showId, id })),
      transaction,
    )
  }

  return {
    apply,
    applyAll,

    /**
     * Changes an episode that is still as a window has seen it; answers its row. Throws `not-found`, `version-conflict`, `wrong-status`, and
     * whatever the decision throws.
     */
    async changeEpisode(
      place: InShow,
      seen: Seen,
      decide: Decision,
      which: 'on the list' | 'also removed' = 'on the list',
    ): Promise<Episode> {
      return transact(database, async transaction => {
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
        if (!change) return episode
        await apply(episode, change, transaction, place.accountId)
        if (change.isInFeed) await touchFeed(platform, episode.showId, transaction)
        return episode
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
    episode.transcriptsVersion !== episode.sentTranscripts ||
    differingFields(textOf(episode), readSnapshot(episode.released)).length > 0
  )
}

const noSuchEpisode = (): AppError => new AppError('not-found', 'There is no such episode.')

async function lockEpisode({ id, showId }: InShow, transaction: Transaction): Promise<Episode> {
  const episode = await Episode.findOne({ where: { id, showId }, lock: true, transaction })
  if (!episode) throw noSuchEpisode()
  return loadRoles(episode, transaction)
}
