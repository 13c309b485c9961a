import { fn, literal, Op, type WhereOptions } from 'sequelize'
import type { EpisodePage, EpisodesNear, EpisodeSummary, ListQuery } from '@contract/episodes'
import { type Standing, standings } from '@core/release/standing'
import type { Scope } from '../access/scope'
import { badInput } from '../errors'
import { AudioFile } from '../files/models'
import { Upload } from '../files/upload'
import { Episode, EpisodeFile } from './models'
import { found } from './search'
import { summaryOf } from './views'

/** So many of each standing are near now. */
const near: Readonly<Record<Standing, number>> = { draft: 20, scheduled: 20, released: 40, retired: 10 }
const mostChanged = 20

/** What a summary is made of. */
export const summaryColumns = [
  'id',
  'version',
  'title',
  'number',
  'standing',
  'releaseAt',
  'updatedAt',
  'recipe',
  'finishing',
  'isChanged',
] as const
/** Entries lie by standing, then by their key, then by id. */
const order = [literal('`Episode`.`standing`'), literal('`Episode`.`order_key`'), literal('`Episode`.`id`')].map(
  column => [column, 'ASC'] as [typeof column, string],
)

/** Lists of a show's episodes: summaries, in pages that each begin behind the last entry of the one before. */
export const episodeLists = {
  async page({ showId }: Scope, { standing, find, after, limit }: ListQuery): Promise<EpisodePage> {
    const words = find ? found(Episode.sequelize!, find) : null
    const where = { showId, deletedAt: null, ...(standing && { standing }), ...(words && { [Op.and]: [words] }) }
    return pageOf(where, limit, after)
  },

  /** What is near now of each standing, and what was changed since its release. */
  async near({ showId }: Scope): Promise<EpisodesNear> {
    const of = { showId, deletedAt: null }
    const [counts, changed, ...lists] = await Promise.all([
      Episode.findAll({
        where: of,
        attributes: ['standing', [fn('COUNT', literal('*')), 'total']],
        group: ['standing'],
        raw: true,
      }) as unknown as Promise<{ standing: Standing; total: number | bigint }[]>,
      entries({ ...of, standing: 'released', isChanged: true }, mostChanged),
      ...standings.map(standing => entries({ ...of, standing }, near[standing] + 1)),
    ])
    const totals = new Map(counts.map(({ standing, total }) => [standing, Number(total)]))
    const summaryOfRow = await summarizer([...changed, ...lists.flat()])
    const pages = standings.map(
      (standing, index) =>
        [standing, pageFrom(lists[index]!, near[standing], totals.get(standing) ?? 0, summaryOfRow)] as const,
    )
    return { ...(Object.fromEntries(pages) as Record<Standing, EpisodePage>), changed: changed.map(summaryOfRow) }
  },
}

async function pageOf(where: WhereOptions<Episode>, limit: number, after?: string): Promise<EpisodePage> {
  const [rows, total] = await Promise.all([
    entries(after === undefined ? where : { [Op.and]: [where, behind(after)] }, limit + 1),
    Episode.count({ where }),
  ])
  return pageFrom(rows, limit, total, await summarizer(rows))
}

/** A page of rows, of which one more than fits tells that there is another page. */
function pageFrom(
  rows: readonly Episode[],
  limit: number,
  total: number,
  summaryOfRow: (row: Episode) => EpisodeSummary,
): EpisodePage {
  return {
    episodes: rows.slice(0, limit).map(summaryOfRow),
    total,
    after: rows.length > limit ? cursorOf(rows[limit - 1]!) : null,
  }
}

function entries(where: WhereOptions<Episode>, limit: number): Promise<Episode[]> {
  return Episode.findAll({
    where,
    attributes: {
      include: [[literal('`Episode`.`order_key`'), 'orderKey']],
      exclude: Object.keys(Episode.getAttributes()).filter(
        name => !(summaryColumns as readonly string[]).includes(name),
      ),
    },
    include: {
      model: EpisodeFile,
      as: 'files',
      separate: true,
      include: [{ model: AudioFile, as: 'file', attributes: ['id', 'durationMs', 'type', 'reachable'] }],
    },
    order,
    limit,
  })
}

/** Makes summaries of some rows, knowing what is on its way to which. */
async function summarizer(rows: readonly Episode[]): Promise<(row: Episode) => EpisodeSummary> {
  const arriving = await arrivingTo(rows)
  return row => summaryOf(row, arriving.get(row.id) ?? null)
}

/** The names of files that are on their way to episodes, by the episodes' ids. */
export async function arrivingTo(rows: readonly Episode[]): Promise<Map<string, string>> {
  const underway = await Upload.findAll({
    where: { episodeId: rows.map(({ id }) => id), state: ['receiving', 'reading'] },
    attributes: ['episodeId', 'fileName'],
    order: [['createdAt', 'ASC']],
  })
  return new Map(underway.map(({ episodeId, fileName }) => [episodeId, fileName]))
}

const cursorOf = (row: Episode): string => `${row.standing}.${String(row.get('orderKey'))}.${row.id}`

const cursor = new RegExp(`^(${standings.join('|')})\\.(-?\\d{1,15})\\.([0-9a-f-]{36})$`)

function behind(after: string): ReturnType<typeof literal> {
  const [, standing, key, id] = cursor.exec(after) ?? []
  if (!standing) throw badInput('after', after, 'The `after` of a page that was had before.')
  // The form of the cursor was looked at: nothing in it can be anything but what it stands for.
  return literal(`(\`Episode\`.\`standing\` + 0 > ${standings.indexOf(standing as Standing) + 1}
    OR (\`Episode\`.\`standing\` = '${standing}' AND (\`Episode\`.\`order_key\` > ${key} OR (\`Episode\`.\`order_key\` = ${key} AND \`Episode\`.\`id\` > '${id}'))))`)
}
