import { setTimeout as wait } from 'node:timers/promises'
import { ERRORS, type Lock, type Locker, MemoryLocker, type RequestRelease } from '@tus/server'
import { type Connection, createConnection } from 'mariadb'

const waitSeconds = 30
const askEveryMs = 200

/**
 * Locks uploads among all server processes: within this one by the tus server's own locker, which can ask a holder
 * whose line is dead to let go, and between processes by named locks of the database. One connection holds all of this
 * process's, so that uploads take no more of them from anybody, however many there are; the locks end with the process.
 */
export class SharedLocker implements Locker {
  private readonly own = new MemoryLocker({ acquireLockTimeout: waitSeconds * 1000 })
  private readonly holders = new Map<string, RequestRelease>()
  private connection: Promise<Connection> | null = null

  constructor(private readonly databaseUrl: string) {}

  newLock(id: string): Lock {
    const ownLock = this.own.newLock(id)
    const name = `lake-letter-upload-${id}`
    let isHeld = false
    return {
      lock: async (signal, requestRelease) => {
        await ownLock.lock(signal, requestRelease)
        try {
          await this.take(name, signal)
          this.holders.set(id, requestRelease)
          isHeld = true
        } catch (error) {
          await ownLock.unlock()
          throw error
        }
      },
      unlock: async () => {
        if (!isHeld) return
        isHeld = false
        if (this.holders.delete(id))
          await this.connection
            ?.then(connection => connection.query('DO RELEASE_LOCK(?)', [name]))
            .catch(() => undefined)
        await ownLock.unlock()
      },
    }
  }

  async close(): Promise<void> {
    const connection = await this.connection?.catch(() => null)
    await connection?.end().catch(() => undefined)
  }

  /** Asks again and again rather than waiting in the database, where all other questions would wait behind it. */
  private async take(name: string, signal: AbortSignal): Promise<void> {
    for (
      const untilMs = performance.now() + waitSeconds * 1000;
      performance.now() < untilMs && !signal.aborted;
      await wait(askEveryMs)
    ) {
      const connection = await this.connected()
      const [row] = await connection.query<{ got: number | bigint | null }[]>('SELECT GET_LOCK(?, 0) AS got', [name])
      if (Number(row?.got) === 1) return
    }
    throw ERRORS.ERR_LOCK_TIMEOUT
  }

  private connected(): Promise<Connection> {
    this.connection ??= createConnection(this.databaseUrl).then(connection => {
      // With the connection all locks are gone, and another process may take them: whoever writes here stops.
      const lost = (): void => {
        this.connection = null
        for (const requestRelease of this.holders.values()) void requestRelease()
        this.holders.clear()
      }
      connection.on('error', lost)
      connection.on('end', lost)
      return connection
    })
    this.connection.catch(() => {
      this.connection = null
    })
    return this.connection
  }
}
