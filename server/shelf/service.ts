import { Op, type Transaction } from 'sequelize'
import type { Episode as EpisodeView } from '@contract/episodes'
import type { Shelf, ShelfFile } from '@contract/shelf'
import { Episode, EpisodeFile, PastDelivery } from '../episodes/models'
import { fileIdOf } from '../episodes/roles'
import { episodeService } from '../episodes/service'
import { fileOf } from '../episodes/sound'
import type { Scope } from '../access/scope'
import { transact } from '../database/transact'
import { AppError } from '../errors'
import { AudioFile } from '../files/models'
import { blobKeeper } from '../media/blobs'
import type { Platform } from '../platform'
import { uploadService } from '../uploads/service'

type Use = ShelfFile['usedBy'][number]

/** The shelf: all audio files of a show, used or not. */
export function shelfService(platform: Platform) {
  const { database, media, clock, events } = platform
  const uploads = uploadService(platform)
  const episodes = episodeService(platform)
  const blobs = blobKeeper(platform)

  /** Who uses which file of a show; of each episode the gravest use of a file only. */
  async function uses(showId: string, transaction?: Transaction): Promise<Map<string, Use[]>> {
    const rows = await Episode.findAll({ where: { showId }, attributes: ['id', 'title', 'number', 'standing'], include: { model: EpisodeFile, as: 'files' }, transaction })
    const past = await PastDelivery.findAll({ where: { episodeId: rows.map(({ id }) => id), until: { [Op.gt]: clock.now() } }, transaction })
    const found = new Map<string, Map<string, Use>>()
    const note = (fileId: string | null, { id, title, number }: Episode, as: Use['as']): void => {
      if (!fileId) return
      const of = found.get(fileId) ?? new Map<string, Use>()
      if (!of.has(id)) of.set(id, { id, title, number, as })
      found.set(fileId, of)
    }
    for (const episode of rows) {
      note(fileIdOf(episode, 'released'), episode, 'delivered')
      note(fileIdOf(episode, 'finished'), episode, 'finished')
      note(fileIdOf(episode, 'source'), episode, 'source')
    }
    const byId = new Map(rows.map(episode => [episode.id, episode]))
    for (const { episodeId, fileId } of past) note(fileId, byId.get(episodeId)!, 'past')
    return new Map([...found].map(([fileId, of]) => [fileId, [...of.values()]]))
  }

  async function find(showId: string, fileId: string, transaction?: Transaction): Promise<AudioFile> {
    const file = await AudioFile.findOne({ where: { id: fileId, showId }, lock: transaction !== undefined, transaction })
    if (!file) throw new AppError('not-found', 'There is no such file on this shelf.')
    return file
  }

  return {
    /** All files of a show, the newest first, with where each is used, and the room they take and is left. */
    async list({ showId }: Scope): Promise<Shelf> {
      const [files, usedBy, freeBytes] = await Promise.all([
        AudioFile.findAll({ where: { showId }, order: [['createdAt', 'DESC'], ['id', 'DESC']] }),
        uses(showId),
        media.roomLeft(),
      ])
      return {
        files: files.map(file => ({ ...fileOf(file), cameAt: file.createdAt.toISOString(), usedBy: usedBy.get(file.id) ?? [] })),
        usedBytes: files.reduce((sum, { bytes, address }) => sum + (address ? 0 : Number(bytes)), 0),
        freeBytes,
      }
    },

    /** Deletes a file that no episode uses. Throws `file-in-use` with who does. */
    async remove({ showId, id: fileId }: Scope): Promise<void> {
      await transact(database, async transaction => {
        const file = await find(showId, fileId, transaction)
        const users = (await uses(showId, transaction)).get(fileId) ?? []
        if (users.length > 0) throw new AppError('file-in-use', `${file.name} is used by ${users.map(({ number, title }) => [number, title || 'an untitled episode'].filter(Boolean).join(' ')).join(', ')}.`)
        await PastDelivery.destroy({ where: { fileId }, transaction })
        await file.destroy({ transaction })
        await events.note({ kind: 'sound', showId, id: fileId }, transaction)
        await blobs.letGo(fileId, transaction)
      })
    },

    /** Makes a file of the shelf the source of an episode. */
    async reuse(scope: Scope, fileId: string): Promise<EpisodeView> {
      await uploads.giveFile(scope, transaction => find(scope.showId, fileId, transaction))
      return episodes.get(scope)
    },
  }
}
