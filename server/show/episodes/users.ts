import type { Transaction } from 'sequelize'
import { Episode, EpisodeFile, type FileRole } from './models'

/** The episodes that have a file in a role, without those that were removed. */
export async function episodesWith(
  fileId: string,
  role: FileRole,
  transaction: Transaction,
): Promise<Pick<Episode, 'id' | 'showId' | 'status'>[]> {
  return Episode.findAll({
    where: { deletedAt: null },
    attributes: ['id', 'showId', 'status'],
    include: { model: EpisodeFile, as: 'files', attributes: [], where: { fileId, role }, required: true },
    transaction,
  })
}
