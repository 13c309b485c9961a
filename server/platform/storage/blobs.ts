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
/** Bytes that were stored and that nobody came to hold, as where the process ended in between, go after so long. */
const arrivesMs = 3600_000
const hasArrived = '(b.arriving_at IS NULL OR b.arriving_at < :before)'

/**
 * Who holds which bytes of the media store. Bytes are noted and then stored, while no row is locked, since a store may be slow; then
 * they are held, in the transaction that makes the holder. What clears away looks under a lock of the bytes' row, and leaves what
 * arrives. So bytes that somebody holds are there, and those that nobody holds go.
 */
export function blobKeeper({ database, media, clock, jobs }: Pick<Platform, 'database' | 'media' | 'clock' | 'jobs'>) {
  const select = (statement: string, replacements: object, transaction?: Transaction): Promise<{ sha256: string }[]> =>
    database.query<{ sha256: string }>(statement, {
      replacements: replacements as Record<string, unknown>,
      type: QueryTypes.SELECT,
      transaction,
    })
  const change = (statement: string, replacements: object, transaction: Transaction): Promise<unknown> =>
    database.query(statement, { replacements: replacements as Record<string, unknown>, transaction })

  const note = (sha256: string, arrivingAt: Date | null, transaction: Transaction): Promise<unknown> =>
    change(
      'INSERT INTO blobs (sha256, arriving_at) VALUES (:sha256, :arrivingAt) ON DUPLICATE KEY UPDATE arriving_at = :arrivingAt',
      { sha256, arrivingAt },
      transaction,
    )

  /** Stores bytes that are to be held within the hour. */
  async function store({ path, sha256 }: Bringing): Promise<void> {
    await transact(database, transaction => note(sha256, clock.now(), transaction))
    await media.take(path, sha256)
  }

  return {
    store,

    /** Has a holder hold bytes that are stored; in the transaction that makes the holder. */
    async hold(holder: string, { path, sha256 }: Bringing, transaction: Transaction): Promise<void> {
      const [row] = await select('SELECT sha256 FROM blobs WHERE sha256 = :sha256 FOR UPDATE', { sha256 }, transaction)
      await note(sha256, null, transaction)
      // Whoever held the same bytes meanwhile has let them go, and they were cleared away.
      if (!row) await media.take(path, sha256)
      await change(
        'INSERT IGNORE INTO blob_holders (sha256, holder) VALUES (:sha256, :holder)',
        { sha256, holder },
        transaction,
      )
    },

    /** A holder lets everything go that it held; in the transaction that ends the holder. */
    async letGo(holder: string, transaction: Transaction): Promise<void> {
      await change('DELETE FROM blob_holders WHERE holder = :holder', { holder }, transaction)
      await jobs.add({ kind: 'clear-blobs', payload: {} }, transaction)
    },

    /** Writes bytes to the local disk and stores them, to be held. */
    async written<T>(contents: readonly Uint8Array[], act: (bringings: Bringing[]) => Promise<T>): Promise<T> {
      return media.workIn(uuidV7(), async folder => {
        const bringings: Bringing[] = []
        for (const bytes of contents) {
          const sha256 = createHash('sha256').update(bytes).digest('hex')
          const bringing = { sha256, path: join(folder, sha256) }
          await writeFile(bringing.path, bytes)
          await store(bringing)
          bringings.push(bringing)
        }
        return act(bringings)
      })
    },

    /** Takes bytes that nobody holds out of the store. Can run at any time, and be killed at any point. */
    async clear(): Promise<void> {
      const before = new Date(+clock.now() - arrivesMs)
      const unheld = await select(
        `SELECT b.sha256 FROM blobs b LEFT JOIN blob_holders h ON h.sha256 = b.sha256 WHERE h.sha256 IS NULL AND ${hasArrived} LIMIT :mostAtOnce`,
        { before, mostAtOnce },
      )
      for (const { sha256 } of unheld) {
        await transact(database, async transaction => {
          const locked = `SELECT b.sha256 FROM blobs b WHERE b.sha256 = :sha256 AND ${hasArrived} FOR UPDATE`
          const [row] = await select(locked, { sha256, before }, transaction)
          const holders = 'SELECT sha256 FROM blob_holders WHERE sha256 = :sha256 LIMIT 1'
          if (!row || (await select(holders, { sha256 }, transaction)).length > 0) return
          await media.remove(sha256)
          await change('DELETE FROM blobs WHERE sha256 = :sha256', { sha256 }, transaction)
        })
      }
      if (unheld.length === mostAtOnce) await jobs.add({ kind: 'clear-blobs', payload: {} })
    },
  }
}
