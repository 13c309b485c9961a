import { Op } from 'sequelize'
import type { Snapshot } from '@core/episode/snapshot'
import type { AudioFile } from '../files/models'
import { type Audience, goesTo } from './audience'
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
export async function releasedVersions(showId: string, audience: Audience): Promise<{ id: string; is: string }[]> {
  const isFor = await goesTo(showId, audience)
  const rows = (await Episode.findAll({
    where: { showId, ...inFeed },
    attributes: ['id', 'version', 'soundVersion', 'releaseAt', ...(isFor ? ['released' as const] : [])],
    include: withRole('released', 'bytes', 'durationMs'),
    order: newestFirst,
    raw: true,
    nest: true,
  })) as unknown as (Pick<Episode, 'id' | 'version' | 'soundVersion' | 'releaseAt' | 'released'> & {
    files: { fileId: string; file: Pick<AudioFile, 'bytes' | 'durationMs'> }
  })[]
  return rows
    .filter(row => !isFor || isFor(row))
    .map(({ id, version, soundVersion, releaseAt, files: { fileId, file } }) => ({
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
 * The released episodes of a show that go out to an audience, newest first, with what is told of them; of one address part, where that is given, also
 * one that has left the feed and keeps its page.
 */
export async function releasedEpisodes(
  showId: string,
  audience: Audience,
  { slug, ids }: { slug?: string | undefined; ids?: readonly string[] | undefined } = {},
): Promise<ReleasedEpisode[]> {
  const isFor = await goesTo(showId, audience)
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
  return rows.filter(row => !isFor || isFor(row)).map(({ files, ...episode }) => ({ ...episode, file: files.file }))
}

/** The released episode at an address part; null where none is. */
export const releasedEpisode = async (
  showId: string,
  audience: Audience,
  slug: string,
): Promise<ReleasedEpisode | null> => (await releasedEpisodes(showId, audience, { slug }))[0] ?? null

/** How many are in the feed that everybody has. */
export async function releasedCount(showId: string): Promise<number> {
  const isFor = await goesTo(showId, 'everybody')
  if (isFor) return (await releasedVersions(showId, 'everybody')).length
  return Episode.count({ where: { showId, standing: 'released' } })
}
