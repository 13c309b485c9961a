import { fn, literal, Op, type WhereOptions } from 'sequelize'
import type { EpisodePage, EpisodesNear, EpisodeSummary, ListQuery } from '@contract/episodes'
import { type Status, statuses } from '@core/release/status'
import type { Scope } from '../../people/access/scope'
import { badInput } from '../../platform/http/errors'
import { AudioFile } from '../../media/files/models'
import { Upload } from '../../media/files/upload'
import { Episode, EpisodeFile } from './models'
import { found } from './search'
import { summaryOf } from './views'

/** So many of each status are near now. */
const near: Readonly<Record<Status, number>> = { draft: 20, scheduled: 20, released: 40, retired: 10 }
const mostChanged = 20

/** What a summary is made of. */
export const summaryColumns = [
  'id',
  'version',
  'title',
  'number',
  'status',
  'releaseAt',
  'updatedAt',
  'recipe',
  'finishing',
  'isChanged',
] as const
/** Entries lie by status, then by their key, then by id. */
const order = [literal('`Episode`.`status`'), literal('`Episode`.`order_key`'), literal('`Episode`.`id`')].map(
  column => [column, 'ASC'] as [typeof column, string],
)

/** Lists of a show's episodes: summaries, in pages that each begin behind the last entry of the one before. */
export const episodeLists = {
  async page({ showId }: Scope, { status, find, after, limit }: ListQuery): Promise<EpisodePage> {
    const words = find ? found(Episode.sequelize!, find) : null
    const where = { showId, deletedAt: null, ...(status && { status }), ...(words && { [Op.and]: [words] }) }
    return pageOf(where, limit, after)
  },

  /** What is near now of each status, and what was changed since its release. */
  async near({ showId }: Scope): Promise<EpisodesNear> {
    const of = { showId, deletedAt: null }
    const [counts, changed, ...lists] = await Promise.all([
      Episode.findAll({
        where: of,
        attributes: ['status', [fn('COUNT', literal('*')), 'total']],
        group: ['status'],
        raw: true,
      }) as unknown as Promise<{ status: Status; total: number | bigint }[]>,
      entries({ ...of, status: 'released', isChanged: true }, mostChanged),
      ...statuses.map(status => entries({ ...of, status }, near[status] + 1)),
    ])
    const totals = new Map(counts.map(({ status, total }) => [status, Number(total)]))
    const summaryOfRow = await summarizer([...changed, ...lists.flat()])
    const pages = statuses.map(
      (status, index) =>
        [status, pageFrom(lists[index]!, near[status], totals.get(status) ?? 0, summaryOfRow)] as const,
    )
    return { ...(Object.fromEntries(pages) as Record<Status, EpisodePage>), changed: changed.map(summaryOfRow) }
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
    where: { episodeId: rows.map(({ id }) => id), role: 'source', state: ['receiving', 'reading'] },
    attributes: ['episodeId', 'fileName'],
    order: [['createdAt', 'ASC']],
  })
  return new Map(underway.map(({ episodeId, fileName }) => [episodeId, fileName]))
}

const cursorOf = (row: Episode): string => `${row.status}.${String(row.get('orderKey'))}.${row.id}`

const cursor = new RegExp(`^(${statuses.join('|')})\\.(-?\\d{1,15})\\.([0-9a-f-]{36})$`)

function behind(after: string): ReturnType<typeof literal> {
  const [, status, key, id] = cursor.exec(after) ?? []
  if (!status) throw badInput('after', after, 'The `after` of a page that was had before.')
  // The form of the cursor was looked at: nothing in it can be anything but what it stands for.
  return literal(`(\`Episode\`.\`status\` + 0 > ${statuses.indexOf(status as Status) + 1}
    OR (\`Episode\`.\`status\` = '${status}' AND (\`Episode\`.\`order_key\` > ${key} OR (\`Episode\`.\`order_key\` = ${key} AND \`Episode\`.\`id\` > '${id}'))))`)
}
