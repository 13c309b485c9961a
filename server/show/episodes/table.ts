import { literal, Op, type Sequelize, type WhereOptions } from 'sequelize'
import type { Lack, TableOrder, TablePage, TableQuery, TableRow } from '@contract/table'
import { leastTags } from '@core/episode/wants'
import { seenLetter } from '@core/words/line'
import type { Scope } from '../../people/access/scope'
import { AudioFile } from '../../media/files/models'
import { Episode, EpisodeFile } from './models'
import { arrivingTo, summaryColumns } from './lists'
import { found } from './search'
import { summaryOf } from './views'

const columns = [...summaryColumns, 'season', 'kind', 'tags', 'people', 'extras'] as const
const of = (column: string): string => `\`Episode\`.\`${column}\``

const hasAudio = `EXISTS (SELECT 1 FROM episode_files f WHERE f.episode_id = ${of('id')} AND f.role = 'source')`

/** `isBlank` for the database. */
const isUnseen = (column: string): string => `${of(column)} NOT REGEXP '${seenLetter.replaceAll('\\', '\\\\')}'`

/** What makes an episode lack something, for the database. */
const lacking: Readonly<Record<Lack, string>> = {
  audio: `NOT ${hasAudio}`,
  title: isUnseen('title'),
  number: `(${of('number')} IS NULL AND ${of('kind')} = 'full')`,
  hook: isUnseen('hook'),
  notes: `${of('notes')} = ''`,
  tags: `JSON_LENGTH(${of('tags')}) < ${leastTags}`,
  people: `JSON_LENGTH(${of('people')}) = 0`,
}

const lengthMs = `(SELECT f.duration_ms FROM episode_files r JOIN files f ON f.id = r.file_id
  WHERE r.episode_id = ${of('id')} ORDER BY r.role = IF(${of('recipe')} IS NULL, 'source', 'finished') DESC LIMIT 1)`

/** By what rows are ordered; what has none of it comes last, or first where there is no date yet. */
const orders: Readonly<Record<TableOrder, string>> = {
  title: of('title'),
  number: of('number'),
  season: `COALESCE(${of('season')}, 0) * 100000 + COALESCE(${of('number')}, 0)`,
  date: `COALESCE(${of('release_at')}, '9999-01-01')`,
  length: lengthMs,
  written: of('updated_at'),
}

/** All episodes of a show as rows: those that are looked for, narrowed, ordered, from a place on. */
export function episodeTable(database: Sequelize) {
  const narrowed = ({ showId }: Pick<Scope, 'showId'>, query: TableQuery): WhereOptions<Episode> => {
    const { find, status, season, kind, tag, lacks } = query
    const words = find ? found(database, find) : null
    const conditions = [
      ...(words ? [words] : []),
      ...(tag ? [literal(`JSON_CONTAINS(${of('tags')}, JSON_QUOTE(${database.escape(tag)}))`)] : []),
      ...(lacks ? [literal(lacking[lacks])] : []),
    ]
    return {
      showId,
      deletedAt: status === 'removed' ? { [Op.ne]: null } : null,
      ...(status === 'changed' && { status: 'released', isChanged: true }),
      ...(status && status !== 'changed' && status !== 'removed' && { status }),
      ...(season !== undefined && { season }),
      ...(kind && { kind }),
      ...(conditions.length > 0 && { [Op.and]: conditions }),
    } as WhereOptions<Episode>
  }

  return {
    async page(scope: Pick<Scope, 'showId'>, query: TableQuery): Promise<TablePage> {
      const where = narrowed(scope, query)
      const way = query.direction === 'up' ? 'ASC' : 'DESC'
      const [rows, total] = await Promise.all([
        Episode.findAll({
          where,
          attributes: [
            ...columns,
            [
              literal(
                `(${Object.values(lacking)
                  .map(condition => `IF(${condition}, '1', '0')`)
                  .reduce(concatenated)})`,
              ),
              'lacks',
            ],
          ],
          include: {
            model: EpisodeFile,
            as: 'files',
            separate: true,
            include: [{ model: AudioFile, as: 'file', attributes: ['id', 'durationMs', 'type', 'reachable'] }],
          },
          order: [
            [literal(`${orders[query.order]} IS NULL`), 'ASC'],
            [literal(orders[query.order]), way],
            [literal(of('id')), way],
          ],
          limit: query.limit,
          offset: query.from,
        }),
        Episode.count({ where }),
      ])
      const arriving = await arrivingTo(rows)
      return { rows: rows.map(row => rowOf(row, arriving.get(row.id) ?? null)), total }
    },
  }
}

const concatenated = (one: string, other: string): string => `CONCAT(${one}, ${other})`
const lackNames = Object.keys(lacking) as Lack[]

const rowOf = (row: Episode, arriving: string | null): TableRow => ({
  ...summaryOf(row, arriving),
  season: row.season,
  kind: row.kind,
  tags: row.tags,
  people: row.people,
  explicit: row.extras.explicit,
  lacks: lackNames.filter((_name, at) => String(row.get('lacks'))[at] === '1'),
})
