import { ERRORS, type Lock, type Locker, MemoryLocker } from '@tus/server'
import { type Connection, createConnection } from 'mariadb'

const waitSeconds = 30

/**
 * Locks uploads among all server processes: within this one by the tus server's own locker, which can ask a holder
 * whose line is dead to let go, and between processes by a named lock of the database, held by a connection of its
 * own, so that it ends with the process that held it.
 */
export class SharedLocker implements Locker {
  private readonly own = new MemoryLocker({ acquireLockTimeout: waitSeconds * 1000 })

  constructor(private readonly databaseUrl: string) {}

  newLock(id: string): Lock {
    const ownLock = this.own.newLock(id)
    let connection: Connection | null = null
    return {
      lock: async (signal, requestRelease) => {
        await ownLock.lock(signal, requestRelease)
        try {
          connection = await createConnection(this.databaseUrl)
          const [row] = await connection.query<{ got: number | bigint | null }[]>('SELECT GET_LOCK(?, ?) AS got', [`lake-letter-upload-${id}`, waitSeconds])
          if (Number(row?.got) !== 1) throw ERRORS.ERR_LOCK_TIMEOUT
        } catch (error) {
          await connection?.end().catch(() => undefined)
          await ownLock.unlock()
          throw error
        }
      },
      unlock: async () => {
        await connection?.end().catch(() => undefined)
        await ownLock.unlock()
      },
    }
  }
}
