import { QueryTypes, type Sequelize } from 'sequelize'
import type { FeedReader } from '@contract/feed'
import { readProgram } from '@core/counting/programs'
import type { Platform } from '../../platform/platform'
import { shortenedAddress } from '../../platform/deliveries/address'
import type { Noted } from '../../platform/deliveries/lines'

const everyMs = 1_000
/** Of more different ones within a second only the log of deliveries knows. */
const mostWaiting = 5_000
const shownReaders = 50

/** An answer that somebody got who fetched a feed. */
export interface Fetched {
  showId: string
  name: string
  userAgent: string
  address: string
  status: number
  /** That went out of its body. */
  bytes: number
  /** Whether they know the feed as it is now, by this answer or by one before. */
  hasIt: boolean
  at: Date
}

/** The same answer to the same asker, as often as it went out; `at` is when it last did. */
interface Waiting extends Fetched {
  times: number
}

/**
 * Who fetches feeds: noted off the way of the requests, some at a time, a row for each program and neighbourhood, and in the log
 * of deliveries a line for all that was alike within a second.
 */
export function feedReaders({ database, deliveries, log }: Pick<Platform, 'database' | 'deliveries' | 'log'>) {
  let waiting = new Map<string, Waiting>()
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  async function write(): Promise<void> {
    timer = undefined
    // Whoever got several answers got the last of them last.
    const rows = [...waiting.values()].sort((one, other) => +one.at - +other.at)
    waiting = new Map()
    if (rows.length === 0) return
    for (const row of rows) deliveries.add(notedOf(row))
    try {
      await database.query(
        `INSERT INTO feed_readers (show_id, name, agent, address, first_at, last_at, status, has_at, whole_count, same_count)
          VALUES ${rows.map(() => '(?)').join(', ')}
          ON DUPLICATE KEY UPDATE last_at = VALUE(last_at), status = VALUE(status), has_at = COALESCE(VALUE(has_at), has_at),
          whole_count = whole_count + VALUE(whole_count), same_count = same_count + VALUE(same_count)`,
        {
          // Who is who is told here: a request is not to wait for it.
          replacements: rows.map(({ showId, name, userAgent, address, at, status, hasIt, times }) => [
            showId,
            name,
            readProgram(userAgent).name,
            shortenedAddress(address),
            at,
            at,
            status,
            hasIt ? at : null,
            hasIt && status === 200 ? times : 0,
            hasIt && status === 304 ? times : 0,
          ]),
          type: QueryTypes.INSERT,
        },
      )
    } catch (error) {
      log.warn({ error }, 'Who fetched feeds could not be noted.')
    }
  }

  return {
    note(fetched: Fetched): void {
      const { showId, name, address, userAgent, status, bytes } = fetched
      const key = `${address} ${status} ${bytes} ${showId} ${name} ${userAgent}`
      const known = waiting.get(key)
      if (known) {
        known.times++
        known.at = fetched.at
      } else if (waiting.size >= mostWaiting) deliveries.add(notedOf({ ...fetched, times: 1 }))
      else {
        waiting.set(key, { ...fetched, times: 1 })
        timer ??= setTimeout(() => (writing = writing.then(write)), everyMs)
      }
    },
    /** Writes down what waits. */
    async flush(): Promise<void> {
      clearTimeout(timer)
      writing = writing.then(write)
      await writing
    },
  }
}

const notedOf = ({ showId, at, status, bytes, userAgent, address, times }: Waiting): Noted => ({
  at,
  kind: 'feed',
  showId,
  episodeId: null,
  fileId: null,
  method: 'GET',
  status,
  bytesSent: bytes,
  range: null,
  agent: userAgent,
  address,
  source: 'feed',
  isPrefetch: false,
  times,
})

interface Row extends Omit<FeedReader, 'firstAt' | 'lastAt' | 'hasNewest'> {
  firstAt: Date
  lastAt: Date
  hasAt: Date | null
}

/** Who fetched a feed of late, the last first; `since` is when it became what it is now. */
export async function readersOf(
  database: Sequelize,
  showId: string,
  name: string,
  since: string | null,
): Promise<FeedReader[]> {
  const rows = await database.query<Row>(
    `SELECT agent, address, first_at AS firstAt, last_at AS lastAt, status, has_at AS hasAt, whole_count AS wholeCount,
      same_count AS sameCount FROM feed_readers WHERE show_id = ? AND name = ? ORDER BY last_at DESC LIMIT ${shownReaders}`,
    { replacements: [showId, name], type: QueryTypes.SELECT },
  )
  return rows.map(({ firstAt, lastAt, hasAt, wholeCount, sameCount, ...row }) => ({
    ...row,
    firstAt: firstAt.toISOString(),
    lastAt: lastAt.toISOString(),
    wholeCount: Number(wholeCount),
    sameCount: Number(sameCount),
    hasNewest: hasAt !== null && since !== null && +hasAt >= Date.parse(since),
  }))
}
