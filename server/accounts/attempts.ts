import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import type { Clock } from '../clock'
import { transact } from '../database/transact'
import { AppError } from '../errors'

const windowMs = 15 * 60_000
const most = { email: 10, address: 30 }
type Kind = keyof typeof most

/** As long as the column; an address behind a proxy is whatever the proxy passes on. */
const longestSubject = 254

/** Attempts to sign in, counted by e-mail and by address before anything costly is done for them. */
export function signInAttempts({ database, clock }: { database: Sequelize; clock: Clock }) {
  /** Counts one more within the quarter of an hour that the first one began, in one step; answers how many it makes. */
  async function count(kind: Kind, subject: string, transaction: Transaction): Promise<number> {
    const now = clock.now()
    const replacements = { kind, subject: subject.slice(0, longestSubject), now, before: new Date(+now - windowMs) }
    await database.query(
      `INSERT INTO sign_in_counts (kind, subject, since, attempts) VALUES (:kind, :subject, :now, 1)
        ON DUPLICATE KEY UPDATE attempts = IF(since < :before, 1, attempts + 1), since = IF(since < :before, :now, since)`,
      { replacements, transaction },
    )
    const [row] = await database.query<{ attempts: number }>(
      'SELECT attempts FROM sign_in_counts WHERE kind = :kind AND subject = :subject',
      { replacements, transaction, type: QueryTypes.SELECT },
    )
    return Number(row!.attempts)
  }

  return {
    /** Counts an attempt. Throws `too-many-attempts` where it is one too many. */
    async need(email: string, address: string): Promise<void> {
      const [byEmail, byAddress] = await transact(database, async transaction => [
        await count('email', email, transaction),
        await count('address', address, transaction),
      ])
      if (byEmail! > most.email || byAddress! > most.address) {
        throw new AppError(
          'too-many-attempts',
          'There were too many attempts with this e-mail or from this address in the last quarter of an hour.',
        )
      }
    },

    /** Takes back what an attempt that was right had counted, and what has run out. */
    async forgive(email: string, address: string): Promise<void> {
      await database.query(
        "DELETE FROM sign_in_counts WHERE (kind = 'email' AND subject = :email) OR since < :before",
        {
          replacements: { email, before: new Date(+clock.now() - windowMs) },
        },
      )
      await database.query(
        "UPDATE sign_in_counts SET attempts = attempts - 1 WHERE kind = 'address' AND subject = :address AND attempts > 0",
        {
          replacements: { address: address.slice(0, longestSubject) },
        },
      )
    },
  }
}
