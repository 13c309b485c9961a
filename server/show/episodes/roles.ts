import type { Includeable, Transaction } from 'sequelize'
import { AudioFile } from '../../media/files/models'
import { Episode, EpisodeFile, type FileRole } from './models'

/** Loads an episode's files with it; of the files themselves the named columns, or all. */
export function withFiles(...attributes: (keyof AudioFile['_attributes'])[]): Includeable {
  const some = attributes.length > 0 ? { attributes: ['id' as const, ...attributes] } : {}
  return { model: EpisodeFile, as: 'files', include: [{ model: AudioFile, as: 'file', ...some }] }
}

/** Only episodes that have a file in a role, together with that file. */
export function withRole(role: FileRole, ...attributes: (keyof AudioFile['_attributes'])[]): Includeable {
  return { ...(withFiles(...attributes) as object), where: { role }, required: true }
}

/** Loads an episode's files to an episode that was loaded without them. */
export async function loadFiles(episode: Episode, transaction: Transaction): Promise<void> {
  const file = { model: AudioFile, as: 'file' }
  episode.files = await EpisodeFile.findAll({ where: { episodeId: episode.id }, include: [file], transaction })
}

/** Loads which files an episode has, without the files. */
export async function loadRoles(episode: Episode, transaction?: Transaction): Promise<Episode> {
  episode.files = await EpisodeFile.findAll({ where: { episodeId: episode.id }, transaction })
  return episode
}

function roleOf({ id, files }: Episode, role: FileRole): EpisodeFile | null {
  if (!files) throw new Error(`The files of episode ${id} were not loaded with it.`)
  return files.find(file => file.role === role) ?? null
}

export const fileIdOf = (episode: Episode, role: FileRole): string | null => roleOf(episode, role)?.fileId ?? null
export const fileIn = (episode: Episode, role: FileRole): AudioFile | null => roleOf(episode, role)?.file ?? null

/** The role of the file that a release would deliver; null while there is none, or while it is not finished. */
export function deliveredRole(episode: Episode): FileRole | null {
  const role = episode.recipe ? 'finished' : 'source'
  return fileIdOf(episode, role) && (!episode.recipe || episode.finishing === 'done') ? role : null
}

export function deliveredFileId(episode: Episode): string | null {
  const role = deliveredRole(episode)
  return role && fileIdOf(episode, role)
}

/** Gives an episode's roles to files, or takes them away. */
export async function giveRoles(
  episode: Episode,
  roles: Partial<Record<FileRole, string | null>>,
  transaction: Transaction,
): Promise<void> {
  for (const [role, fileId] of Object.entries(roles) as [FileRole, string | null][]) {
    const place = { episodeId: episode.id, role }
    if (fileId) await EpisodeFile.upsert({ ...place, fileId }, { transaction })
    else await EpisodeFile.destroy({ where: place, transaction })
  }
  await loadRoles(episode, transaction)
}

/** Gives many episodes, which know their files, the ones that they are released with. */
export async function giveReleased(
  given: readonly { episode: Episode; fileId: string }[],
  transaction: Transaction,
): Promise<void> {
  if (given.length === 0) return
  const role = 'released' as const
  const rows = await EpisodeFile.bulkCreate(
    given.map(({ episode: { id }, fileId }) => ({ episodeId: id, role, fileId })),
    { updateOnDuplicate: ['fileId'], transaction },
  )
  for (const [at, { episode }] of given.entries())
    episode.files = [...(episode.files ?? []).filter(file => file.role !== role), rows[at]!]
}
