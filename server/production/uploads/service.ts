import { Op, type Transaction } from 'sequelize'
import { v4 as uuidV4 } from 'uuid'
import { isOfNewerHouse, type MixDocument, mixDocument } from '@core/mix/document'
import { emptyMix, newBed, newPiece, withBed, withPiece } from '@core/mix/edits'
import { mixBy, type UsualSet } from '@core/mix/usualSet'
import { amount } from '@core/words/amounts'
import { cut, isBlank, oneLine } from '@core/words/line'
import { prefillFrom } from '@core/episode/prefill'
import type { Scope } from '../../people/access/scope'
import { episodeChanges } from '../../show/episodes/change'
import { Episode } from '../../show/episodes/models'
import { fileIdOf } from '../../show/episodes/roles'
import { sourceChanged } from '../../show/episodes/sourceChanged'
import { transact } from '../../platform/database/transact'
import { AppError, badInput } from '../../platform/http/errors'
import { isWritten } from '../../show/history/keep'
import { fileKeeper } from '../../media/files/keeper'
import { AudioFile } from '../../media/files/models'
import type { NewJob } from '../../platform/jobs/jobs'
import type { JobDefinition, JobRun, Payloads } from '../../platform/jobs/kinds'
import { Job } from '../../platform/jobs/models'
import { blobKeeper } from '../../platform/storage/blobs'
import { pictureService } from '../../media/pictures/service'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import type { AudioFacts } from '../../media/sound/reading'
import { Refusal } from '../../platform/refusal'
import { refusalFor } from '../../media/sound/refusals'
import { runSound } from '../../media/sound/run'
import { Upload, type UploadRole, uploadRoles } from '../../media/files/upload'

export interface Announced {
  id: string
  fileName: string
  bytes: number | undefined
  /** What it is for; the audio of its episode where nothing is said. */
  role?: string
  /** Of a piece: before which one it goes, counted from 0. */
  position?: string
}

const isUploadRole = (role: string): role is UploadRole => (uploadRoles as readonly string[]).includes(role)

/** The mix with a file as one more piece, or as a bed under the first one. */
function withPart(
  mix: MixDocument,
  { id, durationMs }: Pick<AudioFile, 'id' | 'durationMs'>,
  { role, position }: Pick<Upload, 'role' | 'position'>,
): MixDocument {
  if (role !== 'bed')
    return withPiece(mix, newPiece(uuidV4(), id, [{ fromMs: 0, toMs: durationMs }]), position ?? undefined)
  const [first] = mix.pieces ?? []
  return first ? withBed(mix, newBed(uuidV4(), id, first.id, durationMs)) : mix
}

/** What was opened before its voice is here begins with it. */
const noMusic: UsualSet = { opening: null, closing: null }
const layOut = (set: UsualSet, { id, durationMs }: Pick<AudioFile, 'id' | 'durationMs'>): MixDocument =>
  mixBy(set, { fileId: id, kept: [{ fromMs: 0, toMs: durationMs }] }, uuidV4)

/** Room that uploads leave for the database, for finishing and for pictures. */
const spareBytes = 50_000_000
/** Room is kept for an upload as long as bytes of it come; whoever goes on later has what is left then. */
const keptMs = 10 * 60_000
/** At most so much of what is free is kept for one account's uploads, so that others have some. */
const shareOfOne = 0.5
/** An upload that nobody goes on with is given up. */
const abandonedMs = 7 * 24 * 3600_000
/** One of which no byte came for so long never began. */
const neverBegunMs = 3600_000
/** Some stores make its file with the first byte, others when it is announced. */
const hasBegun = (here: { bytes: number } | null): boolean => (here?.bytes ?? 0) > 0
const kind = 'read-upload'
/** Of an MP3 of 128 kbit/s. */
const usualBytesPerMs = 16

/** Uploads: announced, received by the tus server, read by a job, and then an episode's audio, a part of it, or a refusal in words. */
export function uploadService(platform: Platform) {
  const { database, clock, media, jobs, events, configuration } = platform
  const { maxUploadBytes } = configuration
  const { arrivals } = media
  const { changeEpisode } = episodeChanges(platform)
  const pictures = pictureService(platform)
  const files = fileKeeper(platform)
  const blobs = blobKeeper(platform)

  /** Makes a file an episode's source; title and number are filled in where nobody has written any, and the first one is laid out as the show's episodes usually are. */
  async function giveFile(
    to: Pick<Scope, 'id' | 'showId'>,
    fileFor: (transaction: Transaction) => Promise<AudioFile>,
    {
      upload,
      jobsFor,
    }: { upload?: Upload; jobsFor?: (file: AudioFile, transaction: Transaction) => Promise<readonly NewJob[]> } = {},
  ): Promise<void> {
    await changeEpisode(to, {}, async (episode, transaction) => {
      const file = await fileFor(transaction)
      const show = await Show.findByPk(episode.showId, { transaction, rejectOnEmpty: true })
      // Whoever has begun to put it together, or brings another file later, has their own mind about it.
      const { mix } = episode
      const isBegun = mix && (isOfNewerHouse(mix) || mix.pieces.length > 0)
      const isFirst = episode.status === 'draft' && !fileIdOf(episode, 'source') && !isBegun
      const set = show.usualSet ?? (mix && noMusic)
      const hints = prefillFrom({ fileName: upload?.fileName ?? file.name, tags: file.tags })
      await files.measure(file, transaction)
      await upload?.update({ state: 'done' }, { transaction })
      const fields = {
        ...(isFirst && !file.address && set && { mix: layOut(set, file) }),
        ...(isBlank(episode.title) && hints.title && { title: hints.title }),
        ...(hints.number && !(await isWritten(episode, 'number', transaction)) && { number: hints.number }),
      }
      return {
        ...sourceChanged(episode, show, file),
        ...(Object.keys(fields).length > 0 && { fields, act: 'filled in' as const }),
        ...(jobsFor && { jobs: await jobsFor(file, transaction) }),
      }
    })
  }

  /** Makes a file a part of what an episode is put together of; what nobody has begun yet begins with it. */
  async function addPart(
    to: Pick<Scope, 'id' | 'showId'>,
    fileFor: (transaction: Transaction) => Promise<AudioFile>,
    upload: Upload,
  ): Promise<void> {
    await changeEpisode(to, {}, async ({ mix }, transaction) => {
      const file = await fileFor(transaction)
      await files.measure(file, transaction)
      await upload.update({ state: 'done' }, { transaction })
      // What a newer house put together is none that this one can add to; nor is one with as many parts as there may be.
      const { data } = mixDocument.safeParse(withPart(mix ?? emptyMix, file, upload))
      return data && data.pieces.length > 0 ? { fields: { mix: data }, act: 'filled in' } : {}
    })
  }

  /** Keeps what was read as a file of a show; the same content is kept once. */
  async function fileOf(
    showId: string,
    name: string,
    path: string,
    { picture, ...facts }: AudioFacts,
  ): Promise<(transaction: Transaction) => Promise<AudioFile>> {
    const isKnown = (await AudioFile.count({ where: { showId, fingerprint: facts.fingerprint } })) > 0
    const pictureId = !isKnown && picture ? await pictures.addFound(picture) : null
    await blobs.store({ path, sha256: facts.fingerprint })
    return transaction =>
      files.keep({ ...facts, showId, name, pictureId }, [{ path, sha256: facts.fingerprint }], transaction)
  }

  /** An upload that nobody waits for any more, and of which not all has come. */
  const forget = (id: string): Promise<unknown> =>
    transact(database, transaction => Upload.destroy({ where: { id, state: 'receiving' }, transaction }))

  /** Where the answer to an announcement was lost, it is made once more: of the first one nothing will ever come. */
  async function forgetUnbegun({ episodeId, role, fileName, bytes, createdAt }: Upload): Promise<void> {
    const alike = await Upload.findAll({
      where: { episodeId, role, fileName, bytes, state: 'receiving', createdAt: { [Op.lte]: createdAt } },
      attributes: ['id'],
    })
    for (const { id } of alike) if (!hasBegun(await arrivals.seen(id))) await forget(id)
  }

  /** How much is still to come of the uploads of each account of which bytes came lately. */
  async function underWay(): Promise<Map<string | null, number>> {
    const since = new Date(+clock.now() - keptMs)
    const uploads = await Upload.findAll({
      where: { state: 'receiving' },
      attributes: ['id', 'bytes', 'accountId', 'createdAt'],
    })
    const toCome = new Map<string | null, number>()
    for (const { id, bytes, accountId, createdAt } of uploads) {
      const here = await arrivals.seen(id)
      if (createdAt < since && (!here || here.ageMs > keptMs)) continue
      const left = Math.max(0, Number(bytes) - (here?.bytes ?? 0))
      toCome.set(accountId, (toCome.get(accountId) ?? 0) + left)
    }
    return toCome
  }

  /** Room for what is still to come of an account's uploads, this one among them, beside what is kept for those of others. */
  async function needRoom(fileName: string, bytes: number, accountId: string | null): Promise<void> {
    const toCome = await underWay()
    const free = (await media.roomLeft()) - spareBytes
    const own = (toCome.get(accountId) ?? 0) - bytes
    const others = [...toCome].reduce(
      (sum, [account, left]) => sum + (account === accountId ? own : Math.min(left, Math.max(0, free) * shareOfOne)),
      0,
    )
    if (others + bytes <= free) return
    const reserved = others > 0 ? `, of which ${amount(others)} are kept for uploads under way` : ''
    throw new AppError(
      'no-room',
      `${fileName} has ${amount(bytes)}; there is room for ${amount(Math.max(0, free))}${reserved}.`,
    )
  }

  /** The news of an upload is its episode’s. */
  async function tell(id: string, transaction: Transaction): Promise<void> {
    const upload = await Upload.findByPk(id, { attributes: ['episodeId'], transaction })
    const episode = upload && (await Episode.findByPk(upload.episodeId, { attributes: ['id', 'showId'], transaction }))
    if (episode) await events.note({ kind: 'upload', showId: episode.showId, id: episode.id }, transaction)
  }

  /** About how long the sound of an upload is that nobody has looked at, for those that go before longer ones. */
  const soundMsOf = async (id: string, transaction?: Transaction): Promise<number> =>
    Number((await Upload.findByPk(id, { attributes: ['bytes'], transaction }))?.bytes ?? 0) / usualBytesPerMs

  async function received(id: string): Promise<void> {
    await transact(database, async transaction => {
      const [changed] = await Upload.update({ state: 'reading' }, { where: { id, state: 'receiving' }, transaction })
      if (!changed) return
      await jobs.add({ kind, payload: { id }, soundMs: await soundMsOf(id, transaction) }, transaction)
      await tell(id, transaction)
    })
  }

  const read = (path: string, run: JobRun): Promise<AudioFacts> => runSound({ kind: 'read', path }, run, configuration)

  async function refuse(upload: Upload, { title, detail, todo }: Refusal): Promise<void> {
    await transact(database, async transaction => {
      await upload.update({ state: 'refused', refusal: { title, detail, todo } }, { transaction })
      await tell(upload.id, transaction)
    })
  }

  return {
    giveFile,

    received,

    /**
     * Checks an upload before its first byte, and writes it down, which keeps room for it. Throws `too-large`, `no-room`,
     * `not-found`, or `bad-input` for an empty file or one whose size is not told.
     */
    async announce(to: Scope, { id, fileName: given, bytes, role = 'source', position }: Announced): Promise<void> {
      if (!isUploadRole(role)) throw badInput('role', role, `What the file is for: ${uploadRoles.join(', ')}.`)
      if (position !== undefined && !/^\d{1,3}$/.test(position))
        throw badInput('position', position, 'Before which piece it goes, counted from 0.')
      const fileName = cut(oneLine(given), 255)
      if (bytes === undefined || !Number.isSafeInteger(bytes) || bytes < 0)
        throw badInput('Upload-Length', bytes, 'The size of the file in bytes, told before the first one.')
      if (bytes > maxUploadBytes)
        throw new AppError(
          'too-large',
          `${fileName} has ${amount(bytes)}; at most ${amount(maxUploadBytes)} are taken.`,
        )
      if (bytes === 0) {
        const { title, detail } = refusalFor('empty')
        throw new AppError('bad-input', `${title}. ${detail}`, [{ field: 'file', value: fileName, rule: detail }])
      }
      await transact(database, async transaction => {
        if ((await Episode.count({ where: { id: to.id, showId: to.showId, deletedAt: null }, transaction })) === 0)
          throw new AppError('not-found', 'There is no such episode.')
        await Upload.create(
          {
            id,
            episodeId: to.id,
            accountId: to.accountId,
            role,
            position: position === undefined ? null : Number(position),
            fileName,
            bytes,
            createdAt: clock.now(),
          },
          { transaction },
        )
        await tell(id, transaction)
      })
      // Written down first, so that of two at once the later one sees the earlier one.
      await needRoom(fileName, bytes, to.accountId).catch(async error => {
        await forget(id)
        throw error
      })
    },

    async givenUp(id: string): Promise<void> {
      await forget(id)
    },

    /** The job: reads a received file and gives it to its episode, or says why not. Can run again after a crash at any point. */
    reading: {
      lane: 'reading',
      async run({ id }, run) {
        const upload = await Upload.findOne({ where: { id, state: 'reading' } })
        const episode = upload && (await Episode.findByPk(upload.episodeId))
        if (upload && episode) {
          const { path, release } = await arrivals.onDisk(id)
          try {
            if (!(await arrivals.seen(id))) throw refusalFor('lost')
            await forgetUnbegun(upload)
            const file = await fileOf(episode.showId, upload.fileName, path, await read(path, run))
            await (upload.role === 'source' ? giveFile(episode, file, { upload }) : addPart(episode, file, upload))
          } catch (error) {
            if (!(error instanceof Refusal)) throw error
            await refuse(upload, error)
          } finally {
            await release()
          }
        }
        await arrivals.remove(id)
      },
      async gaveUp({ id }) {
        const upload = await Upload.findOne({ where: { id, state: 'reading' } })
        if (upload) await refuse(upload, refusalFor('unreadable'))
        await arrivals.remove(id)
      },
    } satisfies JobDefinition<Payloads['read-upload']>,

    /**
     * Takes up what a crash left behind, and gives up what nobody goes on with: uploads that are complete on disk are read,
     * so are those whose job is gone, and abandoned ones end after a week.
     */
    async lookAfter(): Promise<void> {
      const now = +clock.now()
      for (const { id, bytes, createdAt } of await Upload.findAll({ where: { state: 'receiving' } })) {
        const here = await arrivals.seen(id)
        if (here && here.bytes >= Number(bytes)) await received(id)
        else if (Math.min(now - +createdAt, here?.ageMs ?? Infinity) > (hasBegun(here) ? abandonedMs : neverBegunMs)) {
          await forget(id)
          await arrivals.remove(id)
        }
      }
      const waiting = await Upload.findAll({ where: { state: ['receiving', 'reading'] }, attributes: ['id'] })
      await arrivals.sweep(abandonedMs, new Set(waiting.map(({ id }) => id)))
      const reading = await Upload.findAll({ where: { state: 'reading' }, attributes: ['id'] })
      if (reading.length === 0) return
      const known = new Set(
        (await Job.findAll({ where: { kind, state: 'open' }, attributes: ['payload'] })).map(
          ({ payload }) => payload.id,
        ),
      )
      for (const { id } of reading)
        if (!known.has(id)) await jobs.add({ kind, payload: { id }, soundMs: await soundMsOf(id) })
    },
  }
}
