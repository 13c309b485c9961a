import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import type { Numbering } from '@core/episode/numbering'
import type { Episode } from './models'

/** Full episodes of a show, and of one season where there are seasons, without one of them. */
const others = `FROM episodes WHERE show_id = :showId AND deleted_at IS NULL AND kind = 'full' AND season <=> :season AND id <> :id`

/** How an episode's number stands among those of its show: what would be the next free one, and what is odd about the one it has. */
export async function numberingOf(
  database: Sequelize,
  { id, showId, season, number, kind, releaseAt }: Episode,
): Promise<Numbering> {
  const ask = <Row extends object>(statement: string): Promise<Row[]> =>
    database.query<Row>(statement, {
      replacements: { id, showId, season, number, releaseAt },
      type: QueryTypes.SELECT,
    })
  const [[highest], same, before, after] = await Promise.all([
    ask<{ highest: number | null }>(`SELECT MAX(number) AS highest ${others}`),
    ask<{ title: string }>(`SELECT title ${others} AND number = :number LIMIT 1`),
    ask<{ title: string; number: number }>(
      `SELECT title, number ${others} AND release_at < :releaseAt AND number > :number ORDER BY number DESC LIMIT 1`,
    ),
    ask<{ title: string; number: number }>(
      `SELECT title, number ${others} AND release_at > :releaseAt AND number < :number ORDER BY number LIMIT 1`,
    ),
  ])
  const next = (highest?.highest ?? 0) + 1
  const isCounted = kind === 'full' && number !== null
  return {
    next,
    same: isCounted ? (same[0]?.title ?? null) : null,
    skipped: isCounted && highest?.highest != null && number > next ? next : null,
    before: isCounted ? (before[0] ?? null) : null,
    after: isCounted ? (after[0] ?? null) : null,
  }
}

/** Number and season that a new episode begins with: the next free one, where the show counts at all. The show's row is locked. */
export async function nextNumber(
  database: Sequelize,
  showId: string,
  transaction: Transaction,
): Promise<{ number: number | null; season: number | null }> {
  const [latest] = await database.query<{ season: number | null }>(
    `SELECT season FROM episodes WHERE show_id = :showId AND deleted_at IS NULL AND kind = 'full' ORDER BY created_at DESC, id DESC LIMIT 1`,
    { replacements: { showId }, type: QueryTypes.SELECT, transaction },
  )
  if (!latest) return { number: 1, season: null }
  const { season } = latest
  const [row] = await database.query<{ highest: number | null }>(
    `SELECT MAX(number) AS highest FROM episodes WHERE show_id = :showId AND deleted_at IS NULL AND kind = 'full' AND season <=> :season`,
    { replacements: { showId, season }, type: QueryTypes.SELECT, transaction },
  )
  return { number: row?.highest == null ? null : row.highest + 1, season }
}
