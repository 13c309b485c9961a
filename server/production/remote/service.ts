import { createHash } from 'node:crypto'
import { Op } from 'sequelize'
import type { Episode as EpisodeView } from '@contract/episodes'
import { unreachable } from '@core/audio/elsewhere'
import { cut, oneLine } from '@core/words/line'
import type { Scope } from '../../people/access/scope'
import { episodeService } from '../../show/episodes/service'
import { Episode, EpisodeFile } from '../../show/episodes/models'
import { fileIn, withFiles } from '../../show/episodes/roles'
import { episodesWith } from '../../show/episodes/users'
import { transact } from '../../platform/database/transact'
import { AppError } from '../../platform/http/errors'
import { fileKeeper } from '../../media/files/keeper'
import { AudioFile } from '../../media/files/models'
import { Refusal } from '../../platform/refusal'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import type { Platform } from '../../platform/platform'
import { touchFeed } from '../../show/shows/feedRevision'
import { uploadService } from '../uploads/service'
import { readAddress, remoteFetcher } from '../../platform/outside/fetch'
import { inspectRemote } from './inspect'
import { lookAgain, nextLook } from './looks'

const soonMs = 10 * 60_000

/** Files that live elsewhere: asked when they are named, before each release, and daily after. */
export function remoteService(platform: Platform) {
  const {
    database,
    clock,
    jobs,
    events,
    configuration: { fetchAllow, maxUploadBytes },
  } = platform
  const episodes = episodeService(platform)
  const files = fileKeeper(platform)
  const uploads = uploadService(platform)
  const fetchRemote = remoteFetcher(fetchAllow)

  /** Asks a known file's address again, and writes down what it answers; the feed tells a new size at once. */
  async function check(file: AudioFile, signal?: AbortSignal): Promise<Refusal | null> {
    try {
      const {
        readBytes: _read,
        redirects: _redirects,
        ...facts
      } = await inspectRemote(fetchRemote, file.address!, maxUploadBytes, signal)
      const changed = Number(file.bytes) !== facts.bytes || file.durationMs !== facts.durationMs
      await transact(database, async transaction => {
        await file.update({ ...facts, reachable: true, checkedAt: clock.now() }, { transaction })
        for (const { id, showId } of await episodesWith(file.id, 'source', transaction))
          await events.note({ kind: 'episode', showId, id }, transaction)
        const isInFeed =
          changed && (await episodesWith(file.id, 'released', transaction)).some(({ status }) => status === 'released')
        if (isInFeed) await touchFeed(platform, file.showId, transaction)
      })
      return null
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      await transact(database, transaction =>
        file.update({ reachable: false, checkedAt: clock.now(), findings: [unreachable(error)] }, { transaction }),
      )
      return error
    }
  }

  /** Whether an episode that is to go out by now, or shortly, has it as its audio. */
  const isWaitedFor = async (fileId: string): Promise<boolean> =>
    (await Episode.count({
      where: { deletedAt: null, status: 'scheduled', releaseAt: { [Op.lte]: new Date(+clock.now() + soonMs) } },
      include: { model: EpisodeFile, as: 'files', where: { fileId, role: 'source' }, required: true },
    })) > 0

  return {
    /** The job: the daily look at a file. */
    dailyLook: {
      lane: 'network',
      async run({ fileId }, { signal }) {
        const file = await AudioFile.findByPk(fileId)
        if (!file?.address) return
        await check(file, signal)
        await jobs.add(nextLook(file))
      },
      async gaveUp({ fileId }) {
        const file = await AudioFile.findByPk(fileId, { attributes: ['id', 'showId'] })
        if (file) await jobs.add(nextLook(file))
      },
    } satisfies JobDefinition<Payloads['check-address']>,

    /** The job: one more look shortly before a release. */
    lookBeforeRelease: {
      lane: 'before a release',
      async run({ fileId }, { signal }) {
        const file = await AudioFile.findByPk(fileId)
        if (file?.address && (await check(file, signal)) && (await isWaitedFor(file.id)))
          await jobs.add(lookAgain(file))
      },
      gaveUp: null,
    } satisfies JobDefinition<Payloads['check-address-once']>,

    /** Makes the file at an address an episode's audio. Throws `address-refused` with what is wrong in plain words. */
    async bring(scope: Scope, address: string, signal?: AbortSignal): Promise<EpisodeView> {
      await episodes.get(scope)
      try {
        const { href, pathname } = readAddress(address.trim())
        const {
          readBytes: _read,
          redirects: _redirects,
          ...facts
        } = await inspectRemote(fetchRemote, href, maxUploadBytes, signal)
        signal?.throwIfAborted()
        const file = {
          ...facts,
          showId: scope.showId,
          address: href,
          origin: 'elsewhere' as const,
          measuring: 'done' as const,
          pictureId: null,
          name: fileNameIn(pathname),
          // Its content is not here; the address and the size stand for it.
          fingerprint: createHash('sha256').update(`${href}\n${facts.bytes}`).digest('hex'),
          tags: { title: null, artist: null, album: null, track: null, year: null },
          soundFromBytes: null,
          soundToBytes: null,
          checkedAt: clock.now(),
        }
        await uploads.giveFile(scope, transaction => files.keep(file, [], transaction), {
          jobsFor: async (kept, transaction) => ((await jobs.openFor(kept.id, transaction)) ? [] : [nextLook(kept)]),
        })
        return await episodes.get(scope)
      } catch (error) {
        if (!(error instanceof Refusal)) throw error
        throw new AppError('address-refused', `${error.title}. ${error.detail} ${error.todo}`, [
          { field: 'address', value: address.slice(0, 80), rule: error.title },
        ])
      }
    },

    /** Asks again before an episode goes out. Throws `not-ready` where its audio lives elsewhere and cannot be had there. */
    async needReachable({ id, showId }: Scope, signal?: AbortSignal): Promise<void> {
      const episode = await Episode.findOne({ where: { id, showId }, include: withFiles() })
      const file = episode && fileIn(episode, 'source')
      if (!file?.address || episode?.recipe) return
      const refusal = await check(file, signal)
      if (refusal)
        throw new AppError('not-ready', `${refusal.title}. ${refusal.detail}`, [
          { field: 'audio', value: file.address, rule: refusal.title },
        ])
    },
  }
}

/** The file's name at the end of an address, in letters where they are spelled out rightly. */
function fileNameIn(pathname: string): string {
  const last = pathname.split('/').at(-1) ?? ''
  try {
    return cut(oneLine(decodeURIComponent(last)), 255) || 'sound'
  } catch {
    return cut(last, 255)
  }
}
