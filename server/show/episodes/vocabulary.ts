import { QueryTypes, type Sequelize } from 'sequelize'
import type { Vocabulary } from '@contract/episodes'
import type { Person } from '@core/episode/fields'
import type { Scope } from '../../people/access/scope'

const mostTags = 2000
const mostPeople = 1000
const mostSeasons = 1000

/** What a show's episodes have used: each tag with how often, the most used first, and the people of its book, the latest first, each with the latest picture. */
export async function vocabularyOf(database: Sequelize, { showId }: Pick<Scope, 'showId'>): Promise<Vocabulary> {
  const ask = <Row extends object>(statement: string, most: number): Promise<Row[]> =>
    database.query<Row>(`${statement} LIMIT ${most}`, { replacements: [showId], type: QueryTypes.SELECT })
  const [tags, people, seasons] = await Promise.all([
    ask<{ tag: string; count: number | bigint }>(
      `SELECT t.tag, COUNT(*) AS count FROM episodes e,
        JSON_TABLE(e.tags, '$[*]' COLUMNS (tag VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin PATH '$')) t
        WHERE e.show_id = ? AND e.deleted_at IS NULL GROUP BY t.tag ORDER BY count DESC, t.tag`,
      mostTags,
    ),
    ask<Person>(
      `SELECT p.name, p.role, p.address,
          SUBSTRING_INDEX(GROUP_CONCAT(p.picture_id ORDER BY e.created_at DESC), ',', 1) AS pictureId FROM episodes e,
        JSON_TABLE(e.people, '$[*]' COLUMNS (
          name VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin PATH '$.name',
          role VARCHAR(60) CHARACTER SET utf8mb4 PATH '$.role',
          address VARCHAR(2000) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin PATH '$.address',
          picture_id CHAR(64) CHARACTER SET ascii PATH '$.pictureId')) p
        WHERE e.show_id = ? AND e.deleted_at IS NULL GROUP BY p.name, p.role, p.address ORDER BY MAX(e.created_at) DESC, p.name`,
      mostPeople,
    ),
    ask<{ season: number }>(
      'SELECT DISTINCT season FROM episodes WHERE show_id = ? AND deleted_at IS NULL AND season IS NOT NULL ORDER BY season',
      mostSeasons,
    ),
  ])
  return {
    tags: tags.map(({ tag, count }) => ({ tag, count: Number(count) })),
    people,
    seasons: seasons.map(({ season }) => season),
  }
}
