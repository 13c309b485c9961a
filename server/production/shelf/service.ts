import { Op, QueryTypes, type Transaction } from 'sequelize'
import { NIL } from 'uuid'
import type { Episode as EpisodeView } from '@contract/episodes'
import { filesOfSet } from '@core/mix/usualSet'
import type { Shelf, ShelfFile, ShelfQuery } from '@contract/shelf'
import { Episode, EpisodeFile, PastDelivery } from '../../show/episodes/models'
import { episodeService } from '../../show/episodes/service'
import { Show } from '../../show/shows/models'
import { fileOf } from '../../show/episodes/sound'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { AppError } from '../../platform/http/errors'
import { AudioFile } from '../../media/files/models'
import { blobKeeper } from '../../platform/storage/blobs'
import type { Platform } from '../../platform/platform'
import { uploadService } from '../uploads/service'

type Use = ShelfFile['usedBy'][number]

const asOf = { released: 'delivered', finished: 'finished', source: 'source', mixed: 'mixed' } as const
const gravest: readonly Use['as'][] = ['delivered', 'finished', 'source', 'mixed', 'past']

/** The shelf: all audio files of a show, used or not; what is put together here is no file. */
export function shelfService(platform: Platform) {
  const { database, media, clock, events } = platform
  const uploads = uploadService(platform)
  const episodes = episodeService(platform)
  const blobs = blobKeeper(platform)

  /** Who uses which of some files; of each episode the gravest use of a file only. */
  async function uses(fileIds: readonly string[], transaction?: Transaction): Promise<Map<string, Use[]>> {
    const where = { fileId: [...fileIds] }
    const [held, past] = await Promise.all([
      EpisodeFile.findAll({ where, transaction }),
      PastDelivery.findAll({ where: { ...where, until: { [Op.gt]: clock.now() } }, transaction }),
    ])
    const all = [
      ...held.map(({ episodeId, fileId, role }) => ({ episodeId, fileId, as: asOf[role] })),
      ...past.map(({ episodeId, fileId }) => ({ episodeId, fileId, as: 'past' as const })),
    ]
    const episodes = await Episode.findAll({
      where: { id: [...new Set(all.map(({ episodeId }) => episodeId))] },
      attributes: ['id', 'title', 'number'],
      transaction,
    })
    const byId = new Map(episodes.map(episode => [episode.id, episode]))
    const found = new Map<string, Map<string, Use>>()
    for (const { episodeId, fileId, as } of all.toSorted(
      (one, other) => gravest.indexOf(one.as) - gravest.indexOf(other.as),
    )) {
      const { id, title, number } = byId.get(episodeId)!
      const of = found.get(fileId) ?? new Map<string, Use>()
      if (!of.has(id)) of.set(id, { id, title, number, as })
      found.set(fileId, of)
    }
    return new Map([...found].map(([fileId, of]) => [fileId, [...of.values()]]))
  }

  /** The files that the episodes of a show usually begin and end with. */
  async function usualFiles(showId: string, transaction?: Transaction): Promise<string[]> {
    const show = await Show.findByPk(showId, {
      attributes: ['usualSet'],
      rejectOnEmpty: true,
      ...(transaction && { transaction, lock: transaction.LOCK.SHARE }),
    })
    return show.usualSet ? filesOfSet(show.usualSet) : []
  }

  /** What all files of a show take, and how many of them nobody uses. */
  async function sumOf(
    showId: string,
    usual: readonly string[],
  ): Promise<{ total: number; unused: number; usedBytes: number }> {
    const [row] = await database.query<Record<'total' | 'unused' | 'usedBytes', number | bigint | string | null>>(
      `SELECT COUNT(*) AS total, SUM(IF(f.address IS NULL, f.bytes, 0)) AS usedBytes,
        SUM(NOT EXISTS (SELECT 1 FROM episode_files u WHERE u.file_id = f.id) AND NOT EXISTS (SELECT 1 FROM past_deliveries p WHERE p.file_id = f.id AND p.until > :now) AND f.id NOT IN (:usual)) AS unused
      FROM files f WHERE f.show_id = :showId AND f.origin <> 'mix'`,
      { replacements: { showId, now: clock.now(), usual: [NIL, ...usual] }, type: QueryTypes.SELECT },
    )
    return { total: Number(row!.total), unused: Number(row!.unused ?? 0), usedBytes: Number(row!.usedBytes ?? 0) }
  }

  async function find(showId: string, fileId: string, transaction?: Transaction): Promise<AudioFile> {
    const file = await AudioFile.findOne({
      where: { id: fileId, showId, origin: { [Op.ne]: 'mix' } },
      lock: transaction !== undefined,
      transaction,
    })
    if (!file) throw new AppError('not-found', 'There is no such file on this shelf.')
    return file
  }

  return {
    /** A page of the files of a show, the newest first, with where each is used, and the room they take and is left. */
    async list({ showId }: Scope, { after, limit }: ShelfQuery): Promise<Shelf> {
      // Ids grow with time, so they tell the order, and where a page begins.
      const where = { showId, origin: { [Op.ne]: 'mix' as const }, ...(after && { id: { [Op.lt]: after } }) }
      const rows = await AudioFile.findAll({ where, order: [['id', 'DESC']], limit: limit + 1 })
      const files = rows.slice(0, limit)
      const usual = await usualFiles(showId)
      const [usedBy, sum, freeBytes] = await Promise.all([
        uses(files.map(({ id }) => id)),
        sumOf(showId, usual),
        media.roomLeft(),
      ])
      return {
        files: files.map(file => ({
          ...fileOf(file),
          cameAt: file.createdAt.toISOString(),
          isUsual: usual.includes(file.id),
          uses: usedBy.get(file.id)?.length ?? 0,
          usedBy: (usedBy.get(file.id) ?? []).slice(0, mostNamed),
        })),
        after: rows.length > limit ? files.at(-1)!.id : null,
        ...sum,
        freeBytes,
      }
    },

    /** Deletes a file that no episode uses, and that none usually does. Throws `file-in-use` with who does. */
    async remove({ showId, id: fileId }: Scope): Promise<void> {
      await transact(database, async transaction => {
        const usual = await usualFiles(showId, transaction)
        const file = await find(showId, fileId, transaction)
        const users = (await uses([fileId], transaction)).get(fileId) ?? []
        if (usual.includes(fileId))
          throw new AppError('file-in-use', `${file.name} is what the episodes of the show begin or end with.`)
        if (users.length > 0) throw new AppError('file-in-use', `${file.name} is used by ${namesOf(users)}.`)
        await PastDelivery.destroy({ where: { fileId }, transaction })
        await file.destroy({ transaction })
        await events.note({ kind: 'progress', showId, id: fileId }, transaction)
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

/** Of the episodes that use a file so many are named. */
const mostNamed = 5

function namesOf(users: readonly Use[]): string {
  const names = users
    .slice(0, mostNamed)
    .map(({ number, title }) => [number, title || 'an untitled episode'].filter(Boolean).join(' '))
  const others = users.length - names.length
  return [...names, ...(others > 0 ? [`${others.toLocaleString('en')} more`] : [])].join(', ')
}
