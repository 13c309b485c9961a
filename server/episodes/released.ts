import { Op } from 'sequelize'
import type { Snapshot } from '@core/episode/snapshot'
import type { AudioFile } from '../files/models'
import { Episode } from './models'
import { withRole } from './roles'

/** What answers at its own address: what is released, and what is retired and keeps its page. */
export const withPage = {
  [Op.or]: [{ standing: 'released' as const }, { standing: 'retired' as const, keepsPage: true }],
}

const inFeed = { standing: 'released' as const, slug: { [Op.not]: null } }
const newestFirst: [string, 'DESC'][] = [
  ['releaseAt', 'DESC'],
  ['id', 'DESC'],
]

/** The episodes in the feed of a show, newest first, each with what tells that something of it is another than before. */
export async function releasedVersions(showId: string): Promise<{ id: string; is: string }[]> {
  const rows = (await Episode.findAll({
    where: { showId, ...inFeed },
    attributes: ['id', 'version', 'soundVersion', 'releaseAt'],
    include: withRole('released', 'bytes', 'durationMs'),
    order: newestFirst,
    raw: true,
    nest: true,
  })) as unknown as (Pick<Episode, 'id' | 'version' | 'soundVersion' | 'releaseAt'> & {
    files: { fileId: string; file: Pick<AudioFile, 'bytes' | 'durationMs'> }
  })[]
  return rows.map(({ id, version, soundVersion, releaseAt, files: { fileId, file } }) => ({
    id,
    is: `${id} ${version} ${soundVersion} ${+releaseAt!} ${fileId} ${file.bytes} ${file.durationMs}`,
  }))
}

/** What is public of an episode that is released. */
export interface ReleasedEpisode {
  id: string
  guid: string
  slug: string
  releaseAt: Date
  released: Snapshot
  file: Pick<AudioFile, 'sha256' | 'type' | 'bytes' | 'durationMs' | 'address'>
}

/**
 * The released episodes of a show, newest first, with what is public of them; of one address part, where that is given, also
 * one that has left the feed and keeps its page.
 */
export async function releasedEpisodes(
  showId: string,
  { slug, ids }: { slug?: string | undefined; ids?: readonly string[] | undefined } = {},
): Promise<ReleasedEpisode[]> {
  const which = slug === undefined ? inFeed : { ...withPage, slug }
  // Plain rows: making models of hundreds of them takes longer than all else that is done for a feed.
  const rows = (await Episode.findAll({
    where: { showId, ...which, ...(ids && { id: [...ids] }) },
    attributes: ['id', 'guid', 'slug', 'releaseAt', 'released'],
    include: withRole('released', 'sha256', 'type', 'bytes', 'durationMs', 'address'),
    order: newestFirst,
    raw: true,
    nest: true,
  })) as unknown as (Omit<ReleasedEpisode, 'file'> & { files: Pick<ReleasedEpisode, 'file'> })[]
  return rows.map(({ files, ...episode }) => ({ ...episode, file: files.file }))
}

/** The released episode at an address part; null where none is. */
export const releasedEpisode = async (showId: string, slug: string): Promise<ReleasedEpisode | null> =>
  (await releasedEpisodes(showId, { slug }))[0] ?? null

export const releasedCount = (showId: string): Promise<number> =>
  Episode.count({ where: { showId, standing: 'released' } })
