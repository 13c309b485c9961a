import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import type { Clock } from '../clock'

/** As long as the column; an address behind a proxy is whatever the proxy passes on. */
const longestSubject = 254

/** Counts how often something was done, in rows that all processes share: each count begins with the first time, and ends so long after it. */
export function rateCounts({ database, clock }: { database: Sequelize; clock: Clock }, windowMs: number) {
  const before = (): Date => new Date(+clock.now() - windowMs)

  return {
    /** Counts one more, in one step; answers how many it makes. */
    async count(kind: string, subject: string, transaction?: Transaction): Promise<number> {
      const replacements = { kind, subject: subject.slice(0, longestSubject), now: clock.now(), before: before() }
      const [row] = await database.query<{ attempts: number }>(
        `INSERT INTO rate_counts (kind, subject, since, attempts) VALUES (:kind, :subject, :now, 1)
          ON DUPLICATE KEY UPDATE attempts = IF(since < :before, 1, attempts + 1), since = IF(since < :before, :now, since)
          RETURNING attempts`,
        { replacements, transaction, type: QueryTypes.SELECT },
      )
      return Number(row!.attempts)
    },

    /** Takes one back, of what is not to count. */
    async uncount(kind: string, subject: string): Promise<void> {
      await database.query(
        'UPDATE rate_counts SET attempts = attempts - 1 WHERE kind = :kind AND subject = :subject AND attempts > 0',
        { replacements: { kind, subject: subject.slice(0, longestSubject) } },
      )
    },

    /** Takes all of one back. */
    async forget(kind: string, subject: string): Promise<void> {
      await database.query('DELETE FROM rate_counts WHERE kind = :kind AND subject = :subject', {
        replacements: { kind, subject: subject.slice(0, longestSubject) },
      })
    },
  }
}
