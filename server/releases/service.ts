import { literal, Op, type Transaction } from 'sequelize'
import type { Episode as EpisodeView, Release } from '@contract/episodes'
import type { Fault } from '@contract/problem'
import { freeSlug, slugFrom } from '@core/address/slug'
import { isDeliverable } from '@core/audio/recipe'
import { readLocalMoment } from '@core/release/moment'
import { after, missingForRelease, type Step } from '@core/release/standing'
import { deliveredFileId, Episode, PastDelivery } from '../episodes/models'
import { episodeService, lockEpisodeAt } from '../episodes/service'
import { textOf } from '../episodes/views'
import { AppError, badInput } from '../errors'
import { AudioFile } from '../files/models'
import type { Platform } from '../platform'
import { touchFeed } from '../shows/service'
import { Upload } from '../uploads/models'

/** How long the address of a file that was replaced still answers: apps and directories ask every few hours, some rarely. */
const pastDeliveryMs = 30 * 24 * 3600_000

/** Moves episodes between draft, scheduled, released and retired. */
export function releaseService(platform: Pick<Platform, 'database' | 'clock' | 'configuration'>) {
  const { database, clock } = platform
  const episodes = episodeService(platform)

  /** Takes a step under a row lock, so that of two windows one takes it and the other is told. */
  async function take(step: Step, id: string, version: number, act: (episode: Episode, transaction: Transaction) => Promise<unknown>): Promise<void> {
    await database.transaction(async transaction => {
      const episode = await lockEpisodeAt(id, version, transaction)
      const standing = after(step, episode.standing)
      if (!standing) throw new AppError('wrong-standing', `The episode is ${episode.standing} by now.`)
      await act(episode, transaction)
      await episode.update({ standing, version: episode.version + 1, updatedAt: clock.now() }, { transaction })
    })
  }

  /** Throws `not-ready` with what is missing. What is scheduled may still be unfinished: it waits for that at its moment. */
  async function needReady(episode: Episode, transaction: Transaction, mayAwaitFinish: 'may await its finish' | 'now' = 'now'): Promise<void> {
    const faults = missingForRelease({ title: episode.title, hasAudio: episode.fileId !== null })
      .map(field => ({ field: field as string, value: '(nothing)', rule: `A release needs ${field === 'audio' ? 'audio' : 'a title'}.` }))
    if (!episode.fileId && await Upload.count({ where: { episodeId: episode.id, state: ['receiving', 'reading'] }, transaction }) > 0) {
      faults.find(({ field }) => field === 'audio')!.rule = 'The audio is still on its way.'
    }
    if (episode.fileId && mayAwaitFinish === 'now') faults.push(...await finishFaults(episode, transaction))
    if (faults.length > 0) throw new AppError('not-ready', faults.map(fault => fault.rule).join(' '), faults)
  }

  async function finishFaults(episode: Episode, transaction: Transaction): Promise<Fault[]> {
    if (!deliveredFileId(episode)) {
      const rule = episode.finishing === 'working' ? 'The audio is still being finished.' : 'The audio is not finished by its recipe yet. Finish it, or let it go out as it was uploaded.'
      return [{ field: 'audio', value: episode.finishing, rule }]
    }
    const file = await AudioFile.findByPk(deliveredFileId(episode)!, { attributes: ['id', 'name', 'type'], transaction, rejectOnEmpty: true })
    return isDeliverable(file.type) ? [] : [{ field: 'audio', value: file.name, rule: 'Only MP3 and M4A can go out. Finish it first, which encodes it.' }]
  }

  /** Puts the text and the file as they are now into the feed. */
  async function send(episode: Episode, transaction: Transaction): Promise<void> {
    const slug = episode.slug ?? await newSlug(episode, transaction)
    const fileId = deliveredFileId(episode)!
    if (episode.releasedFileId && episode.releasedFileId !== fileId) await keepDelivering(episode, transaction)
    await PastDelivery.destroy({ where: { episodeId: episode.id, fileId }, transaction })
    await episode.update({ slug, releasedText: textOf(episode), releasedFileId: fileId }, { transaction })
    await touchFeed(episode.showId, clock.now(), transaction)
  }

  /** The address that apps know already answers for a while after the file was replaced. */
  async function keepDelivering(episode: Episode, transaction: Transaction): Promise<void> {
    const until = new Date(+clock.now() + pastDeliveryMs)
    await PastDelivery.upsert({ episodeId: episode.id, fileId: episode.releasedFileId!, until }, { transaction })
  }

  return {
    /** Releases now, or schedules at a wall time. Throws `not-ready`, and `bad-input` for a time that is past, skipped or unreadable. */
    async release(id: string, { version, when }: Release): Promise<EpisodeView> {
      if (when.kind === 'now') {
        await take('release', id, version, async (episode, transaction) => {
          await needReady(episode, transaction)
          await send(episode, transaction)
          await episode.update({ releaseAt: clock.now(), releaseZone: null }, { transaction })
        })
        return episodes.get(id)
      }
      const releaseAt = futureMoment(when, clock.now())
      await take('schedule', id, version, async (episode, transaction) => {
        await needReady(episode, transaction, 'may await its finish')
        await episode.update({ releaseAt, releaseZone: when.zone }, { transaction })
      })
      return episodes.get(id)
    },

    /** Back to draft: the moment is taken away, everything else stays. */
    async unschedule(id: string, version: number): Promise<EpisodeView> {
      await take('unschedule', id, version, (episode, transaction) => episode.update({ releaseAt: null, releaseZone: null }, { transaction }))
      return episodes.get(id)
    },

    /** Sends what was written since the release into the feed. GUID and date stay. */
    async sendChanges(id: string, version: number): Promise<EpisodeView> {
      await database.transaction(async transaction => {
        const episode = await lockEpisodeAt(id, version, transaction)
        if (episode.standing !== 'released') throw new AppError('wrong-standing', `The episode is ${episode.standing} by now.`)
        await needReady(episode, transaction)
        await send(episode, transaction)
        await episode.update({ version: version + 1, updatedAt: clock.now() }, { transaction })
      })
      return episodes.get(id)
    },

    /** Takes a released episode out of the feed. */
    async retire(id: string, version: number): Promise<EpisodeView> {
      await take('retire', id, version, (episode, transaction) => touchFeed(episode.showId, clock.now(), transaction))
      return episodes.get(id)
    },

    /** Puts a retired episode back, with the GUID and the date it had. */
    async restore(id: string, version: number): Promise<EpisodeView> {
      await take('restore', id, version, async (episode, transaction) => {
        await needReady(episode, transaction)
        await send(episode, transaction)
      })
      return episodes.get(id)
    },

    /**
     * Releases one episode whose moment has come, with that moment as its date; false where there is none. The row
     * lock and the standing see to it that of any number of processes exactly one does it, once.
     */
    async releaseNextDue(): Promise<boolean> {
      return database.transaction(async transaction => {
        const episode = await Episode.findOne({
          // Released only when finished; until then it waits, and goes out as soon as it is.
          // So does one whose audio lives elsewhere and was not there when it was last asked for.
          where: { standing: 'scheduled', releaseAt: { [Op.lte]: clock.now() }, [Op.or]: [{ recipe: null }, { finishing: 'done' }], fileId: { [Op.notIn]: literal('(SELECT id FROM files WHERE NOT reachable)') } },
          order: [['releaseAt', 'ASC']],
          lock: true,
          skipLocked: true,
          transaction,
        })
        if (!episode) return false
        await send(episode, transaction)
        await episode.update({ standing: 'released', version: episode.version + 1, updatedAt: clock.now() }, { transaction })
        return true
      })
    },
  }
}

/** The moment a wall time means, given that it lies ahead. Throws `bad-input` that names the rule. */
function futureMoment({ local, zone, second }: { local: string; zone: string; second?: boolean }, now: Date): Date {
  const read = readLocalMoment(local, zone)
  if (read.kind === 'unreadable') throw badInput('release time', `${local} ${zone}`, 'A date and time such as 2026-12-03T06:00, in a zone of the IANA list.')
  if (read.kind === 'skipped') {
    throw badInput('release time', `${local.replace('T', ' ')} (${zone})`, `The clock jumps over this time on that day; the next one it shows is ${read.next.replace('T', ' ')}.`)
  }
  const at = read.kind === 'twice' && second ? read.second : read.at
  if (at <= now) throw badInput('release time', `${local.replace('T', ' ')} (${zone})`, 'The time is past. Choose one that lies ahead, or release now.')
  return at
}

/** The episode's part of its page's address, free within the show; made once. */
async function newSlug(episode: Episode, transaction: Transaction): Promise<string> {
  const taken = await Episode.findAll({ where: { showId: episode.showId, slug: { [Op.not]: null } }, attributes: ['slug'], transaction })
  const slugs = new Set(['strands', ...taken.map(other => other.slug)])
  return freeSlug(slugFrom(episode.title) || (episode.number ? `episode-${episode.number}` : 'episode'), slug => slugs.has(slug))
}
