import { LRUCache } from 'lru-cache'
import { QueryTypes, type Sequelize } from 'sequelize'

/** What has another name beyond so many is told together: whoever makes names up is not to fill the house with them. */
const mostLabels = 50_000
const otherLabel = 'Other'
const longestLabel = 80

/**
 * Numbers that stand for names of programs and places in the tables of sums. A name that was given its number keeps it, whatever
 * becomes of the stretch of the log that it came with: they are written beside its transaction, since they are known here from then on.
 */
export function labels(database: Sequelize, most = mostLabels) {
  const known = new LRUCache<string, number>({ max: mostLabels })

  async function read(texts: readonly string[]): Promise<void> {
    const rows = await database.query<{ id: number; text: string }>('SELECT id, text FROM labels WHERE text IN (?)', {
      replacements: [texts],
      type: QueryTypes.SELECT,
    })
    for (const { id, text } of rows) known.set(text, id)
  }

  return async (given: Iterable<string>): Promise<(text: string) => number> => {
    const cut = (text: string): string => text.slice(0, longestLabel)
    const missing = (): string[] => [...new Set([otherLabel, ...[...given].map(cut)])].filter(text => !known.has(text))
    if (missing().length > 0) await read(missing())
    const unheard = missing()
    if (unheard.length > 0) {
      const [row] = await database.query<{ count: number | bigint }>('SELECT COUNT(*) AS count FROM labels', {
        type: QueryTypes.SELECT,
      })
      // The name for all others is the first, and is needed in any case.
      const room = Math.max(unheard.includes(otherLabel) ? 1 : 0, most - Number(row!.count))
      const kept = unheard.slice(0, room)
      if (kept.length > 0)
        await database.query(`INSERT IGNORE INTO labels (text) VALUES ${kept.map(() => '(?)').join(', ')}`, {
          replacements: kept,
        })
      if (kept.length > 0) await read(kept)
    }
    return text => known.get(cut(text)) ?? known.get(otherLabel)!
  }
}
