import type { IncomingMessage, ServerResponse } from 'node:http'
import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import type { Sequelize } from 'sequelize'
import type { Clock } from '../clock'
import { shortenedAddress } from './address'

/** What is being answered to whom. */
export interface Delivery {
  kind: 'media' | 'feed'
  showId: string
  episodeId: string | null
  /** Of whoever asked, as the server sees it. */
  address: string
  status: number
  /** The bytes that were to go out; null for an answer without. */
  part: { start: number; end: number } | null
  isRange: boolean
}

/** An entry of the log. */
export interface DeliveryEntry extends Pick<Delivery, 'kind' | 'showId' | 'episodeId' | 'status'> {
  at: Date
  /** Null where a proxy sent them. */
  bytesSent: number | null
  /** Both included; null where the whole was asked for. */
  range: { start: number; end: number } | null
  agent: string
  /** Without its end. */
  address: string
}

const everyMs = 1_000
const mostInBatch = 5_000
/** What waits while the database is away, and no more. */
const mostWaiting = 100_000
const longestAgent = 255

export interface DeliveryLog {
  /**
   * Notes an answer as soon as the line has taken all that was handed over of it, or it is broken off: when, of what, how many
   * bytes, which range, to which program, to which address without its end. `handedOver` are the bytes of its body; null where
   * a proxy sends them, which does not tell how many.
   */
  follow(delivery: Delivery, request: IncomingMessage, response: ServerResponse, handedOver: number | null): void
  /** Writes down what waits. */
  flush(): Promise<void>
  stop(): Promise<void>
}

/**
 * The log of deliveries, from which numbers are counted: written in batches, off the way of the requests. A process that is
 * killed loses the last second of it.
 */
export function deliveryLog(database: Sequelize, clock: Clock, report: (error: unknown) => void): DeliveryLog {
  let waiting: DeliveryEntry[] = []
  let lost = 0
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  function note(entry: DeliveryEntry): void {
    if (waiting.length >= mostWaiting) {
      lost++
      return
    }
    waiting.push(entry)
    timer ??= setTimeout(() => void flush(), everyMs)
  }

  async function flushNow(): Promise<void> {
    clearTimeout(timer)
    timer = undefined
    try {
      while (waiting.length > 0) {
        const batch = waiting.slice(0, mostInBatch)
        const packed = await pack(batch)
        await database.query('INSERT INTO delivery_log (at, entries, packed) VALUES (?, ?, ?)', {
          replacements: [clock.now(), batch.length, packed],
        })
        waiting = waiting.slice(batch.length)
      }
      if (lost > 0) report(new Error(`The delivery log lost ${lost} entries while the database was away.`))
      lost = 0
    } catch (error) {
      timer ??= setTimeout(() => void flush(), everyMs)
      report(error)
    }
  }

  function flush(): Promise<void> {
    writing = writing.then(flushNow)
    return writing
  }

  return {
    follow(delivery, request, response, handedOver) {
      const at = clock.now()
      const agent = (request.headers['user-agent'] ?? '').slice(0, longestAgent)
      const waitingBytes = (): number => (response.writableFinished ? 0 : response.writableLength)
      const noteNow = (): void =>
        note(entryOf(delivery, at, agent, handedOver && Math.max(0, handedOver - waitingBytes())))
      // Most answers are short, and are on the line at once; only of longer ones the end must be waited for.
      if (!handedOver || response.destroyed || waitingBytes() === 0) noteNow()
      else response.once('close', noteNow)
    },
    flush,
    async stop() {
      await flush()
    },
  }
}

function entryOf(
  { kind, showId, episodeId, status, part, isRange, address }: Delivery,
  at: Date,
  agent: string,
  bytesSent: number | null,
): DeliveryEntry {
  return {
    at,
    kind,
    showId,
    episodeId,
    status,
    bytesSent,
    range: isRange ? part : null,
    agent,
    address: shortenedAddress(address),
  }
}

/** A batch as it is kept: a line of JSON for each entry, its values in a fixed order, all of it compressed by gzip. */
export function pack(entries: readonly DeliveryEntry[]): Promise<Buffer> {
  const lines = entries.map(({ at, kind, showId, episodeId, status, bytesSent, range, agent, address }) =>
    JSON.stringify([
      +at,
      kind,
      showId,
      episodeId,
      status,
      bytesSent,
      range && [range.start, range.end],
      agent,
      address,
    ]),
  )
  return promisify(gzip)(lines.join('\n'), { level: 1 })
}

type Line = [
  at: number,
  kind: Delivery['kind'],
  showId: string,
  episodeId: string | null,
  status: number,
  bytesSent: number | null,
  range: [number, number] | null,
  agent: string,
  address: string,
]

/** The entries of a batch. */
export async function unpack(packed: Buffer): Promise<DeliveryEntry[]> {
  const lines = (await promisify(gunzip)(packed)).toString().split('\n')
  return lines.map(line => {
    const [at, kind, showId, episodeId, status, bytesSent, range, agent, address] = JSON.parse(line) as Line
    return {
      at: new Date(at),
      kind,
      showId,
      episodeId,
      status,
      bytesSent,
      range: range && { start: range[0], end: range[1] },
      agent,
      address,
    }
  })
}
