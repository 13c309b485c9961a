import { QueryTypes, type Sequelize } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { ShowNumbers } from '@contract/numbers'
import type { Scope } from '../../people/access/scope'
import { badInput } from '../../platform/http/errors'

const mostMarks = 1_000

/** What somebody noted of days, in their order. */
export const marksOf = (database: Sequelize, showId: string): Promise<ShowNumbers['marks']> =>
  database.query('SELECT id, CAST(day AS CHAR) AS day, words FROM day_marks WHERE show_id = ? ORDER BY day, id', {
    replacements: [showId],
    type: QueryTypes.SELECT,
  })

/** Notes something of a day. Throws `bad-input` where there are too many. */
export async function addMark(
  database: Sequelize,
  { showId }: Scope,
  { day, words }: { day: string; words: string },
): Promise<{ marks: ShowNumbers['marks'] }> {
  const known = await marksOf(database, showId)
  if (known.length >= mostMarks) throw badInput('day', day, `At most ${mostMarks.toLocaleString('en')} marks.`)
  await database.query('INSERT INTO day_marks (id, show_id, day, words) VALUES (?, ?, ?, ?)', {
    replacements: [uuidV7(), showId, day, words],
  })
  return { marks: await marksOf(database, showId) }
}

export async function removeMark(database: Sequelize, { id, showId }: Scope): Promise<{ marks: ShowNumbers['marks'] }> {
  await database.query('DELETE FROM day_marks WHERE id = ?', { replacements: [id] })
  return { marks: await marksOf(database, showId) }
}
