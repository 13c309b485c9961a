import { col, fn, literal, Op, type Transaction } from 'sequelize'
import type { Episode as EpisodeView, Release } from '@contract/episodes'
import type { Fault } from '@contract/problem'
import { wishedSlug } from '@core/address/slug'
import { deliverableTypes, isDeliverable } from '@core/audio/recipe'
import { readLocalMoment } from '@core/release/moment'
import { textOf } from '@core/episode/fields'
import { snapshotOf } from '@core/episode/snapshot'
import { after, missingForRelease, type Step } from '@core/release/standing'
import type { Scope } from '../access/scope'
import { chaptersNow, cutOf } from '../episodes/chapters'
import { type Change, episodeChanges, isOtherThanReleased, type Seen } from '../episodes/change'
import { Episode, PastDelivery } from '../episodes/models'
import { deliveredFileId, fileIdOf, loadRoles, withFiles } from '../episodes/roles'
import { episodeService } from '../episodes/service'
import { transact } from '../database/transact'
import { AppError, badInput } from '../errors'
import { AudioFile } from '../files/models'
import type { Platform } from '../platform'
import { lockShow, touchFeed } from '../shows/feedRevision'
import { lookBefore } from '../remote/looks'
import { sendTranscripts } from '../transcripts/release'
import { Upload } from '../files/upload'

/** How long the address of a file that was replaced still answers: apps and directories ask every few hours, some rarely. */
const pastDeliveryMs = 30 * 24 * 3600_000

/** How many episodes go out in one step. */
const mostAtOnce = 100

/** Moves episodes between draft, scheduled, released and retired. */
export function releaseService(
  platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'jobs' | 'events' | 'media'>,
) {
  const { database, clock } = platform
  const { changeEpisode, apply } = episodeChanges(platform)
  const episodes = episodeService(platform)

  /** Throws `not-ready` with what is missing. What is scheduled may still be unfinished: it waits for that at its moment. */
  async function needReady(
    episode: Episode,
    transaction: Transaction,
    mayAwaitFinish: 'may await its finish' | 'now' = 'now',
  ): Promise<void> {
    const source = fileIdOf(episode, 'source')
    const faults = missingForRelease({ title: episode.title, hasAudio: source !== null }).map(field => ({
      field: field as string,
      value: '(nothing)',
      rule: `A release needs ${field === 'audio' ? 'audio' : 'a title'}.`,
    }))
    if (
      !source &&
      (await Upload.count({ where: { episodeId: episode.id, state: ['receiving', 'reading'] }, transaction })) > 0
    ) {
      faults.find(({ field }) => field === 'audio')!.rule = 'The audio is still on its way.'
    }
    if (source && mayAwaitFinish === 'now') faults.push(...(await finishFaults(episode, transaction)))
    if (faults.length > 0) throw new AppError('not-ready', faults.map(fault => fault.rule).join(' '), faults)
  }

  function needStep(step: Step, { standing }: Episode): void {
    if (!after(step, standing)) throw new AppError('wrong-standing', `The episode is ${standing} by now.`)
  }

  const isReady = (episode: Episode, transaction: Transaction): Promise<boolean> =>
    needReady(episode, transaction).then(
      () => true,
      error => {
        if (error instanceof AppError) return false
        throw error
      },
    )

  async function finishFaults(episode: Episode, transaction: Transaction): Promise<Fault[]> {
    if (!deliveredFileId(episode)) {
      const rule =
        episode.finishing === 'working'
          ? 'The audio is still being finished.'
          : 'The audio is not finished by its recipe yet. Finish it, or let it go out as it was uploaded.'
      return [{ field: 'audio', value: episode.finishing, rule }]
    }
    const file = await AudioFile.findByPk(deliveredFileId(episode)!, {
      attributes: ['id', 'name', 'type'],
      transaction,
      rejectOnEmpty: true,
    })
    return isDeliverable(file.type)
      ? []
      : [{ field: 'audio', value: file.name, rule: 'Only MP3 and M4A can go out. Finish it first, which encodes it.' }]
  }

  /**
   * What puts the text and the file as they are now into the feed. The show's row is locked, so that of episodes that go out
   * together each finds another address part; `numbers` remembers those from one episode to the next.
   */
  async function asSent(
    episode: Episode,
    transaction: Transaction,
    numbers = new Map<string, number>(),
  ): Promise<Required<Pick<Change, 'fields' | 'files'>>> {
    await lockShow(episode.showId, transaction)
    const slug = episode.slug ?? (await newSlug(episode, transaction, numbers))
    const fileId = deliveredFileId(episode)!
    const whole = await Episode.findByPk(episode.id, {
      include: withFiles('durationMs', 'chapters'),
      transaction,
      rejectOnEmpty: true,
    })
    const beside = {
      chapters: chaptersNow(whole),
      transcripts: await sendTranscripts(episode.id, cutOf(whole)!, transaction),
    }
    const before = fileIdOf(episode, 'released')
    if (before && before !== fileId) {
      await keepDelivering(episode.id, before, transaction)
      await PastDelivery.destroy({ where: { episodeId: episode.id, fileId }, transaction })
    }
    const { transcriptsVersion: sentTranscripts } = episode
    return {
      fields: { slug, released: snapshotOf(textOf(episode), beside), sentTranscripts },
      files: { released: fileId },
    }
  }

  /** The address that apps know already answers for a while after the file was replaced. */
  async function keepDelivering(episodeId: string, fileId: string, transaction: Transaction): Promise<void> {
    const until = new Date(+clock.now() + pastDeliveryMs)
    await PastDelivery.upsert({ episodeId, fileId, until }, { transaction })
  }

  return {
    /**
     * Releases now, also dated back, or schedules at a wall time. Throws `not-ready`, and `bad-input` for a time that is
     * skipped or unreadable, or past where it is not meant so.
     */
    async release(scope: Scope, { when, ...seen }: Release): Promise<EpisodeView> {
      const now = clock.now()
      const at = when.kind === 'now' ? now : momentMeant(when, now)
      const releaseZone = when.kind === 'now' ? null : when.zone
      if (at <= now) {
        await changeEpisode(scope, seen, async (episode, transaction) => {
          needStep('release', episode)
          await needReady(episode, transaction)
          const { fields, files } = await asSent(episode, transaction)
          return {
            step: 'release',
            isInFeed: true,
            fields: { ...fields, releaseAt: at, releaseZone },
            files,
          }
        })
        return episodes.get(scope)
      }
      await changeEpisode(scope, seen, async (episode, transaction) => {
        needStep('schedule', episode)
        await needReady(episode, transaction, 'may await its finish')
        const file = await AudioFile.findByPk(fileIdOf(episode, 'source')!, {
          attributes: ['id', 'showId', 'address'],
          transaction,
          rejectOnEmpty: true,
        })
        return {
          step: 'schedule',
          fields: { releaseAt: at, releaseZone },
          jobs: file.address ? [lookBefore(at, file, now)] : [],
        }
      })
      return episodes.get(scope)
    },

    /** Back to draft: the moment is taken away, everything else stays. */
    async unschedule(scope: Scope, seen: Seen): Promise<EpisodeView> {
      await changeEpisode(scope, seen, async () => ({
        step: 'unschedule',
        fields: { releaseAt: null, releaseZone: null },
      }))
      return episodes.get(scope)
    },

    /** Sends what was written since the release into the feed; where that is nothing, nothing changes. GUID and date stay. */
    async sendChanges(scope: Scope, seen: Seen): Promise<EpisodeView> {
      await changeEpisode(scope, seen, async (episode, transaction) => {
        if (episode.standing !== 'released')
          throw new AppError('wrong-standing', `The episode is ${episode.standing} by now.`)
        if (!isOtherThanReleased(episode)) return null
        await needReady(episode, transaction)
        return { isInFeed: true, ...(await asSent(episode, transaction)) }
      })
      return episodes.get(scope)
    },

    /** Takes a released episode out of the feed. */
    async retire(scope: Scope, seen: Seen): Promise<EpisodeView> {
      await changeEpisode(scope, seen, async () => ({ step: 'retire', isInFeed: true }))
      return episodes.get(scope)
    },

    /** Puts a retired episode back as it was: with the GUID, the date, the text and the file that it went out with. */
    async restore(scope: Scope, seen: Seen): Promise<EpisodeView> {
      await changeEpisode(scope, seen, async () => ({ step: 'restore', isInFeed: true }))
      return episodes.get(scope)
    },

    /**
     * Releases episodes of one show whose moment has come, with that moment as their date; answers how many. The row
     * locks and the standing see to it that of any number of processes exactly one releases each, once.
     */
    async releaseDue(): Promise<number> {
      // Mostly nothing is due, and that is seen without a transaction.
      if (!(await Episode.findOne({ where: dueNow(), attributes: ['id'], raw: true }))) return 0
      return transact(database, async transaction => {
        const due = await dueEpisodes(transaction)
        const numbers = new Map<string, number>()
        let released = 0
        for (const episode of due) {
          await loadRoles(episode, transaction)
          if (!(await isReady(episode, transaction))) continue
          await apply(episode, { step: 'release', ...(await asSent(episode, transaction, numbers)) }, transaction)
          released++
        }
        if (released > 0) await touchFeed(platform, due[0]!.showId, transaction)
        return released
      })
    },
  }

  /**
   * Some of the episodes that are due and ready, of the show that waits longest, locked. What is not finished yet, cannot
   * go out as it is, or lives elsewhere and was not there when last asked for, waits, and goes out as soon as it can.
   */
  async function dueEpisodes(transaction: Transaction): Promise<Episode[]> {
    const due = dueNow()
    const locked = {
      order: [
        ['releaseAt', 'ASC'],
        ['id', 'ASC'],
      ] as [string, string][],
      lock: true,
      skipLocked: true,
      transaction,
    }
    const [first] = await Episode.findAll({ where: due, limit: 1, ...locked })
    if (!first) return []
    const others = await Episode.findAll({
      where: { ...due, showId: first.showId, id: { [Op.ne]: first.id } },
      limit: mostAtOnce - 1,
      ...locked,
    })
    return [first, ...others]
  }

  function dueNow() {
    const canGoOut = literal(`(
      (recipe IS NULL AND EXISTS (SELECT 1 FROM episode_files u JOIN files f ON f.id = u.file_id
        WHERE u.episode_id = \`Episode\`.id AND u.role = 'source' AND f.reachable AND f.type IN (${deliverableTypes.map(type => `'${type}'`).join(', ')})))
      OR (recipe IS NOT NULL AND finishing = 'done' AND EXISTS (SELECT 1 FROM episode_files u WHERE u.episode_id = \`Episode\`.id AND u.role = 'finished')))`)
    return {
      standing: 'scheduled' as const,
      releaseAt: { [Op.lte]: clock.now() },
      deletedAt: null,
      [Op.and]: [canGoOut],
    }
  }
}

/** Nothing that apps can fetch went out earlier. */
const firstDate = new Date('2000-01-01T00:00:00Z')

/** The moment a wall time means, which lies ahead where it is not meant to be dated back. Throws `bad-input` that names the rule. */
function momentMeant({ local, zone, second, isDatedBack }: Extract<Release['when'], { kind: 'at' }>, now: Date): Date {
  const read = readLocalMoment(local, zone)
  if (read.kind === 'unreadable')
    throw badInput(
      'release time',
      `${local} ${zone}`,
      'A date and time such as 2026-12-03T06:00, in a zone of the IANA list.',
    )
  if (read.kind === 'skipped') {
    throw badInput(
      'release time',
      `${local.replace('T', ' ')} (${zone})`,
      `The clock jumps over this time on that day; the next one it shows is ${read.next.replace('T', ' ')}.`,
    )
  }
  const at = read.kind === 'twice' && second ? read.second : read.at
  if (at < firstDate)
    throw badInput('release time', `${local.replace('T', ' ')} (${zone})`, 'Not before the year 2000.')
  if (at <= now && !isDatedBack)
    throw badInput(
      'release time',
      `${local.replace('T', ' ')} (${zone})`,
      'The time is past. Choose one that lies ahead, or release now.',
    )
  return at
}

/** Part of the address of something else in a show. */
const keptParts: readonly string[] = ['strands']

/** The episode's part of its page's address, free within the show; made once. The show's row is locked, so that what was asked once still holds. */
async function newSlug(
  { showId, title, number }: Episode,
  transaction: Transaction,
  numbers: Map<string, number>,
): Promise<string> {
  const wished = wishedSlug({ title, number })
  const known = numbers.get(wished)
  if (known !== undefined) {
    numbers.set(wished, known + 1)
    return `${wished}-${known + 1}`
  }
  const isTaken =
    keptParts.includes(wished) || (await Episode.count({ where: { showId, slug: wished }, transaction })) > 0
  if (!isTaken) return wished
  // Among `wished-2`, `wished-3` … the one behind the highest.
  const highest = await Episode.findOne({
    where: { showId, slug: { [Op.like]: `${wished}-%`, [Op.regexp]: `^${wished}-[1-9][0-9]*$` } },
    attributes: ['slug'],
    order: [
      [fn('LENGTH', col('slug')), 'DESC'],
      ['slug', 'DESC'],
    ],
    transaction,
  })
  const next = highest ? Number(highest.slug!.slice(wished.length + 1)) + 1 : 2
  numbers.set(wished, next)
  return `${wished}-${next}`
}
