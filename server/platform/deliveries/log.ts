import type { IncomingMessage, ServerResponse } from 'node:http'
import type { Sequelize } from 'sequelize'
import type { Clock } from '../clock'
import type { Source } from '@core/counting/count'
import type { DayKeys } from './dayKeys'
import { keepLines, Lines, type Noted } from './lines'
import type { ListenerReader } from './listener'

/** What is being answered to whom. */
export interface Delivery {
  kind: 'media' | 'feed'
  showId: string
  episodeId: string | null
  fileId: string | null
  source: Source
  /** Of whoever asked, as the server sees it. */
  address: string
  status: number
  /** The bytes that were to go out; null for an answer without. */
  part: { start: number; end: number } | null
  isRange: boolean
}

const everyMs = 1_000
/** What waits while the database is away, and no more: some 16 MB. */
const mostBatches = 32
/** Entries by which it is told in one go to whom they went: cheaper than between two answers, where nothing of it is in the processor's cache. */
const toldAtOnce = 256
/** What waits for the key of a new day, which comes with the next answer of the database. */
const mostUntold = 20_000

export interface DeliveryLog {
  /**
   * Notes an answer as soon as the line has taken all that was handed over of it, or it is broken off: when, of what, how many
   * bytes, which range, to which program, and to whom, under the key of the day. `handedOver` are the bytes of its body; null
   * where a proxy sends them, which does not tell how many.
   */
  follow(delivery: Delivery, request: IncomingMessage, response: ServerResponse, handedOver: number | null): void
  /** Notes an answer that has gone out. */
  add(noted: Noted): void
  /** Writes down what waits. */
  flush(): Promise<void>
  stop(): Promise<void>
}

/**
 * The log of deliveries, from which numbers are counted: written in batches, off the way of the requests. A process that is
 * killed loses the last second of it.
 */
export function deliveryLog(
  database: Sequelize,
  clock: Clock,
  { keys, listeners }: { keys: DayKeys; listeners: ListenerReader },
  report: (error: unknown) => void,
): DeliveryLog {
  /** The last is written to. */
  const waiting: Lines[] = []
  let lost = 0
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  /** Those of which it has not been told to whom they went, for a second at most; in the first moments of a day until its key has come. */
  const untold: Noted[] = []

  function note(noted: Noted): void {
    if (untold.length < mostUntold) untold.push(noted)
    else lost++
    if (untold.length >= toldAtOnce && keys.atHand(untold[0]!.at)) tell()
    timer ??= setTimeout(() => void flush(), everyMs)
  }

  /** Tells until there is no key at hand. */
  function tell(): void {
    const these = untold.splice(0)
    for (const [n, noted] of these.entries()) {
      const key = keys.atHand(noted.at)
      if (!key) {
        untold.unshift(...these.slice(n))
        return
      }
      add(noted, key)
    }
  }

  function add(noted: Noted, key: Buffer): void {
    if (waiting.length === 0 || waiting.at(-1)!.isFull) {
      if (waiting.length >= mostBatches) {
        lost++
        return
      }
      waiting.push(new Lines())
    }
    waiting.at(-1)!.add(noted, listeners.of(noted.address, noted.agent, key))
  }

  async function tellAll(): Promise<void> {
    for (let next = untold.shift(); next; next = untold.shift()) {
      const key = await keys.of(next.at).catch((error: unknown) => {
        untold.unshift(next!)
        throw error
      })
      add(next, key)
      tell()
    }
  }

  async function flushNow(): Promise<void> {
    clearTimeout(timer)
    timer = undefined
    try {
      await tellAll()
      for (let batch = waiting.shift(); batch; batch = waiting.shift()) {
        try {
          await keepLines(database, clock.now(), batch)
        } catch (error) {
          waiting.unshift(batch)
          throw error
        }
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
    add: note,
    follow(delivery, request, response, handedOver) {
      const at = clock.now()
      const waitingBytes = (): number => (response.writableFinished ? 0 : response.writableLength)
      const noteNow = (): void =>
        note(notedOf(delivery, at, request, handedOver && Math.max(0, handedOver - waitingBytes())))
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

/** Each by its name: what is spread is copied slowly, and this is done for each answer. */
function notedOf(
  { kind, showId, episodeId, fileId, source, address, status, part, isRange }: Delivery,
  at: Date,
  { method, headers }: IncomingMessage,
  bytesSent: number | null,
): Noted {
  return {
    at,
    kind,
    showId,
    episodeId,
    fileId,
    source,
    address,
    status,
    method: method === 'HEAD' ? 'HEAD' : 'GET',
    bytesSent,
    range: isRange ? part : null,
    agent: headers['user-agent'] ?? '',
    isPrefetch: isPrefetch(headers),
    times: 1,
  }
}

/** Browsers say so, each in its way. */
const isPrefetch = (headers: IncomingMessage['headers']): boolean =>
  says(headers['sec-purpose']) || says(headers.purpose) || says(headers['x-moz'])
const says = (purpose: string | string[] | undefined): boolean =>
  typeof purpose === 'string' && /\bprefetch\b/.test(purpose)
