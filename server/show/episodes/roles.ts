import { type Includeable, Op, type Transaction } from 'sequelize'
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

/** The files that an episode has in a role, in their order. */
function inRole({ id, files }: Episode, role: FileRole): EpisodeFile[] {
  if (!files) throw new Error(`The files of episode ${id} were not loaded with it.`)
  return files.filter(file => file.role === role).toSorted((one, other) => one.position - other.position)
}

/** The only one in a role, or the first. */
export const fileIdOf = (episode: Episode, role: FileRole): string | null => inRole(episode, role)[0]?.fileId ?? null
export const fileIn = (episode: Episode, role: FileRole): AudioFile | null => inRole(episode, role)[0]?.file ?? null
export const fileIdsOf = (episode: Episode, role: FileRole): string[] =>
  inRole(episode, role).map(({ fileId }) => fileId)
export const filesIn = (episode: Episode, role: FileRole): AudioFile[] =>
  inRole(episode, role).flatMap(({ file }) => file ?? [])

/** The role of the file that a release would deliver; null while there is none, or while it is not finished. */
export function deliveredRole(episode: Episode): FileRole | null {
  const role = episode.recipe ? 'finished' : 'source'
  return fileIdOf(episode, role) && (!episode.recipe || episode.finishing === 'done') ? role : null
}

export function deliveredFileId(episode: Episode): string | null {
  const role = deliveredRole(episode)
  return role && fileIdOf(episode, role)
}

/** Gives an episode's roles to files, or takes them away; a role may go to several, in their order. */
export async function giveRoles(
  episode: Episode,
  roles: Partial<Record<FileRole, string | readonly string[] | null>>,
  transaction: Transaction,
): Promise<void> {
  for (const [role, given] of Object.entries(roles) as [FileRole, string | readonly string[] | null][]) {
    const place = { episodeId: episode.id, role }
    const fileIds = given === null ? [] : [given].flat()
    await EpisodeFile.destroy({ where: { ...place, position: { [Op.gte]: fileIds.length } }, transaction })
    for (const [position, fileId] of fileIds.entries())
      await EpisodeFile.upsert({ ...place, position, fileId }, { transaction })
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
