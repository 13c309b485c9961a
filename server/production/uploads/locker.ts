import { once } from 'node:events'
import { setTimeout as wait } from 'node:timers/promises'
import { ERRORS, type Lock, type Locker, type RequestRelease } from '@tus/server'
import { type Connection, createConnection } from 'mariadb'

const waitSeconds = 30
const askEveryMs = 200

/** Who holds an upload in this process. */
interface Holder {
  requestRelease: RequestRelease
  /** Aborted when it has let go. */
  ended: AbortController
}

/**
 * Locks uploads among all server processes: within this one by asking a holder, whose line may be dead, to let go, and
 * between processes by named locks of the database. One connection holds all of this process's, so that uploads take no
 * more of them from anybody, however many there are; the locks end with the process.
 */
export class SharedLocker implements Locker {
  private readonly holders = new Map<string, Holder>()
  /** Whose lock stands in the database, too. */
  private readonly written = new Set<Holder>()
  private connection: Promise<Connection> | null = null

  constructor(private readonly databaseUrl: string) {}

  newLock(id: string): Lock {
    const name = `lake-letter-upload-${id}`
    let holder: Holder | null = null
    const letGo = (): void => {
      this.holders.delete(id)
      holder?.ended.abort()
      holder = null
    }
    return {
      lock: async (signal, requestRelease) => {
        const until = AbortSignal.any([signal, AbortSignal.timeout(waitSeconds * 1000)])
        for (let other = this.holders.get(id); other; other = this.holders.get(id)) {
          await other.requestRelease()
          const either = AbortSignal.any([other.ended.signal, until])
          if (!either.aborted) await once(either, 'abort')
          if (until.aborted) throw ERRORS.ERR_LOCK_TIMEOUT
        }
        const own = { requestRelease, ended: new AbortController() }
        holder = own
        this.holders.set(id, own)
        try {
          await this.take(name, until)
          this.written.add(own)
        } catch (error) {
          letGo()
          throw error
        }
      },
      unlock: async () => {
        if (!holder) return
        if (this.written.delete(holder))
          await this.connection
            ?.then(connection => connection.query('DO RELEASE_LOCK(?)', [name]))
            .catch(() => undefined)
        letGo()
      },
    }
  }

  async close(): Promise<void> {
    const connection = await this.connection?.catch(() => null)
    await connection?.end().catch(() => undefined)
  }

  /** Asks again and again rather than waiting in the database, where all other questions would wait behind it. */
  private async take(name: string, until: AbortSignal): Promise<void> {
    for (; !until.aborted; await wait(askEveryMs)) {
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
        connection
          .removeAllListeners('end')
          .removeAllListeners('error')
          .on('error', () => undefined)
        this.connection = null
        for (const holder of this.written) void holder.requestRelease()
        this.written.clear()
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
