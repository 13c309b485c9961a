import { Op, QueryTypes } from 'sequelize'
import type { Snapshot } from '@core/episode/snapshot'
import type { AudioFile } from '../../media/files/models'
import { type Audience, goesTo } from './audience'
import { Episode } from './models'

/** What answers at its own address: what is released, and what is retired and keeps its page. */
export const withPage = {
  [Op.or]: [{ status: 'released' as const }, { status: 'retired' as const, keepsPage: true }],
}

const inFeed = "e.status = 'released' AND e.slug IS NOT NULL"
const atPage = "(e.status = 'released' OR (e.status = 'retired' AND e.keeps_page)) AND e.slug = :slug"
const withFile =
  "FROM episodes e JOIN episode_files role ON role.episode_id = e.id AND role.role = 'released' JOIN files f ON f.id = role.file_id"
const newestFirst = 'ORDER BY e.release_at DESC, e.id DESC'

/** Plain statements: models, and even rows that are nested by them, take longer than all else that is done for a feed of hundreds. */
const select = <Row extends object>(statement: string, replacements: object): Promise<Row[]> =>
  Episode.sequelize!.query<Row>(statement, {
    replacements: replacements as Record<string, unknown>,
    type: QueryTypes.SELECT,
  })

/** The episodes in the feed of a show, newest first, each with what tells that something of it is another than before. */
export async function releasedVersions(showId: string, audience: Audience): Promise<{ id: string; is: string }[]> {
  const isFor = await goesTo(showId, audience)
  const rows = await select<{ id: string; is: string; released?: Snapshot }>(
    `SELECT e.id, CONCAT_WS(' ', e.id, e.version, e.sound_version, e.release_at, f.id, f.bytes, f.duration_ms) AS \`is\`${isFor ? ', e.released' : ''}
      ${withFile} WHERE e.show_id = :showId AND ${inFeed} ${newestFirst}`,
    { showId },
  )
  return isFor ? rows.filter(({ id, released }) => isFor({ id, released: released! })) : rows
}

/** What is public of an episode that is released. */
export interface ReleasedEpisode {
  id: string
  guid: string
  slug: string
  releaseAt: Date
  released: Snapshot
  file: Pick<AudioFile, 'fingerprint' | 'type' | 'bytes' | 'durationMs' | 'address'>
}

/**
 * The released episodes of a show that go out to an audience, newest first, with what is told of them; of one address part, where that is given, also
 * one that has left the feed and keeps its page. `ids` are such as are known to go out to it.
 */
export async function releasedEpisodes(
  showId: string,
  audience: Audience,
  { slug, ids }: { slug?: string | undefined; ids?: readonly string[] | undefined } = {},
): Promise<ReleasedEpisode[]> {
  const isFor = ids ? null : await goesTo(showId, audience)
  const rows = await select<Omit<ReleasedEpisode, 'file'> & ReleasedEpisode['file']>(
    `SELECT e.id, e.guid, e.slug, e.release_at AS releaseAt, e.released, f.fingerprint, f.type, f.bytes, f.duration_ms AS durationMs, f.address
      ${withFile} WHERE e.show_id = :showId AND ${slug === undefined ? inFeed : atPage} ${ids ? 'AND e.id IN (:ids)' : ''} ${newestFirst}`,
    { showId, slug, ids },
  )
  return rows
    .filter(row => !isFor || isFor(row))
    .map(({ fingerprint, type, bytes, durationMs, address, ...episode }) => ({
      ...episode,
      file: { fingerprint, type, bytes, durationMs, address },
    }))
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
  return Episode.count({ where: { showId, status: 'released' } })
}
