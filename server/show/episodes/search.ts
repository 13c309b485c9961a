import { literal, type Sequelize } from 'sequelize'
import { readSearch } from '@core/words/search'
import { anywhere } from '../../platform/database/like'

/** The condition that finds episodes by words of their titles, hooks, notes, tags and people, or by their number; null where nothing is asked. */
export function found(database: Sequelize, asked: string): ReturnType<typeof literal> | null {
  const { beginnings, pieces } = readSearch(asked)
  if (beginnings.length + pieces.length === 0) return null
  const conditions = [
    ...(beginnings.length > 0
      ? [
          `MATCH(\`Episode\`.\`words\`) AGAINST (${database.escape(beginnings.map(word => `+${word}*`).join(' '))} IN BOOLEAN MODE)`,
        ]
      : []),
    ...pieces.map(piece => `\`Episode\`.\`words\` LIKE ${database.escape(anywhere(piece))}`),
  ]
  const byWords = `(${conditions.join(' AND ')})`
  return literal(/^\d{1,9}$/.test(asked.trim()) ? `(${byWords} OR \`Episode\`.\`number\` = ${Number(asked)})` : byWords)
}
