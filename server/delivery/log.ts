import type { IncomingMessage, ServerResponse } from 'node:http'
import type { Sequelize } from 'sequelize'
import type { Connection } from 'mariadb'
import type { Clock } from '../clock'
import { shortenedAddress } from './address'

/** What was asked for. */
export interface Asked {
  kind: 'media' | 'feed'
  showId: string
  episodeId: string | null
  /** Of whoever asked, as the server sees it. */
  address: string
}

type Row = [at: Date, kind: Asked['kind'], showId: string, episodeId: string | null, status: number, bytesSent: number | null, fromByte: number | null, toByte: number | null, agent: string, address: string]

const insert = 'INSERT INTO delivery_log (at, kind, show_id, episode_id, status, bytes_sent, from_byte, to_byte, agent, address) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)'
const everyMs = 1_000
const mostAtOnce = 1_000
/** What waits while the database is away, and no more. */
const mostWaiting = 100_000
const longestAgent = 255

export interface DeliveryLog {
  /**
   * Notes an answer, whose head is about to be written, once it has been sent or broken off: when, of what, how many bytes,
   * which range, to which program, to which address without its end. `part` is null where no bytes of a file are meant, and
   * `elsewhere` says that a proxy sends them, which does not tell how many.
   */
  follow(asked: Asked, request: IncomingMessage, response: ServerResponse, part: { start: number; end: number } | null, elsewhere?: boolean): void
  /** Writes down what waits. */
  flush(): Promise<void>
  stop(): Promise<void>
}

/**
 * The log of deliveries, from which numbers are counted: written in batches, off the way of the requests. A process that is
 * killed loses the last second of it.
 */
export function deliveryLog(database: Sequelize, clock: Clock, report: (error: unknown) => void): DeliveryLog {
  let waiting: Row[] = []
  let lost = 0
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  function note(row: Row): void {
    if (waiting.length >= mostWaiting) {
      lost++
      return
    }
    waiting.push(row)
    timer ??= setTimeout(() => void flush(), everyMs)
  }

  /** Batches go by the database's own protocol for them, which takes a tenth of the time of statements with values. */
  async function write(rows: readonly Row[]): Promise<void> {
    const connection = await database.connectionManager.getConnection({ type: 'write' }) as Connection
    try {
      for (let at = 0; at < rows.length; at += mostAtOnce) await connection.batch(insert, rows.slice(at, at + mostAtOnce))
    } finally {
      database.connectionManager.releaseConnection(connection as never)
    }
  }

  async function flushNow(): Promise<void> {
    clearTimeout(timer)
    timer = undefined
    const rows = waiting
    waiting = []
    if (rows.length === 0) return
    try {
      await write(rows)
      if (lost > 0) report(new Error(`The delivery log lost ${lost} entries while the database was away.`))
      lost = 0
    } catch (error) {
      // Some of a batch may be there already: the log may then count a delivery twice, but loses none.
      waiting = [...rows, ...waiting].slice(0, mostWaiting)
      timer ??= setTimeout(() => void flush(), everyMs)
      report(error)
    }
  }

  function flush(): Promise<void> {
    writing = writing.then(flushNow)
    return writing
  }

  return {
    follow({ kind, showId, episodeId, address }, request, response, part, elsewhere = false) {
      const at = clock.now()
      const { socket, statusCode: status } = response
      const before = socket?.bytesWritten ?? 0
      const isRange = status === 206 && part !== null
      response.once('close', () => {
        const whole = part ? part.end - part.start + 1 : 0
        // Of what was broken off, as much as the line took; the head of the answer is a few hundred bytes of it.
        const sent = elsewhere ? null : response.writableFinished || !part ? whole : Math.min(whole, Math.max(0, (socket?.bytesWritten ?? before) - before))
        note([at, kind, showId, episodeId, status, sent, isRange ? part.start : null, isRange ? part.end : null, (request.headers['user-agent'] ?? '').slice(0, longestAgent), shortenedAddress(address)])
      })
    },
    flush,
    async stop() {
      await flush()
    },
  }
}
