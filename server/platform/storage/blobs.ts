import { createHash } from 'node:crypto'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { QueryTypes, type Transaction } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { transact } from '../database/transact'
import type { Platform } from '../platform'

/** Bytes on the local disk that are to be kept, and their SHA-256. */
export interface Bringing {
  path: string
  sha256: string
}

const mostAtOnce = 500

/**
 * Who holds which bytes of the media store. Bytes are stored and held in one transaction, which keeps their row to itself; what
 * clears away looks under the same lock. So bytes that somebody holds are there, and those that nobody holds go.
 */
export function blobKeeper({ database, media, clock, jobs }: Pick<Platform, 'database' | 'media' | 'clock' | 'jobs'>) {
  /** Notes bytes by a commit of its own, before they are stored: where the process ends in between, they are found and cleared away. */
  async function announce(sha256: string): Promise<void> {
    await transact(database, transaction => note(sha256, transaction))
  }

  /** Writes the row, or locks the one that is there. */
  const note = (sha256: string, transaction: Transaction): Promise<unknown> =>
    database.query(
      'INSERT INTO blobs (sha256, came_at) VALUES (?, ?) ON DUPLICATE KEY UPDATE came_at = VALUES(came_at)',
      { replacements: [sha256, clock.now()], transaction },
    )

  const holders = (sha256: string, transaction?: Transaction): Promise<object[]> =>
    database.query('SELECT holder FROM blob_holders WHERE sha256 = ? LIMIT 1', {
      replacements: [sha256],
      type: QueryTypes.SELECT,
      transaction,
    })

  return {
    announce,

    /** Stores announced bytes for a holder; in the transaction that makes the holder. */
    async hold(holder: string, { path, sha256 }: Bringing, transaction: Transaction): Promise<void> {
      await note(sha256, transaction)
      await media.take(path, sha256)
      await database.query('INSERT IGNORE INTO blob_holders (sha256, holder) VALUES (?, ?)', {
        replacements: [sha256, holder],
        transaction,
      })
    },

    /** A holder lets everything go that it held; in the transaction that ends the holder. */
    async letGo(holder: string, transaction: Transaction): Promise<void> {
      await database.query('DELETE FROM blob_holders WHERE holder = ?', { replacements: [holder], transaction })
      await jobs.add({ kind: 'clear-blobs', payload: {} }, transaction)
    },

    /** Writes bytes to the local disk, to be held. */
    async written<T>(contents: readonly Uint8Array[], act: (bringings: Bringing[]) => Promise<T>): Promise<T> {
      return media.workIn(uuidV7(), async folder => {
        const bringings = contents.map(bytes => {
          const sha256 = createHash('sha256').update(bytes).digest('hex')
          return { sha256, path: join(folder, sha256), bytes }
        })
        for (const { path, sha256, bytes } of bringings) {
          await writeFile(path, bytes)
          await announce(sha256)
        }
        return act(bringings)
      })
    },

    /** Takes bytes that nobody holds out of the store. Can run at any time, and be killed at any point. */
    async clear(): Promise<void> {
      const unheld = await database.query<{ sha256: string }>(
        'SELECT b.sha256 FROM blobs b LEFT JOIN blob_holders h ON h.sha256 = b.sha256 WHERE h.sha256 IS NULL ORDER BY b.came_at LIMIT ?',
        { replacements: [mostAtOnce], type: QueryTypes.SELECT },
      )
      for (const { sha256 } of unheld) {
        await transact(database, async transaction => {
          const [row] = await database.query('SELECT sha256 FROM blobs WHERE sha256 = ? FOR UPDATE', {
            replacements: [sha256],
            type: QueryTypes.SELECT,
            transaction,
          })
          if (!row || (await holders(sha256, transaction)).length > 0) return
          await media.remove(sha256)
          await database.query('DELETE FROM blobs WHERE sha256 = ?', { replacements: [sha256], transaction })
        })
      }
      if (unheld.length === mostAtOnce) await jobs.add({ kind: 'clear-blobs', payload: {} })
    },
  }
}
