import { QueryTypes, type Sequelize } from 'sequelize'
import type { FeedReader } from '@contract/feed'
import { agentName } from '@core/feed/agents'
import type { Platform } from '../platform'
import { shortenedAddress } from '../delivery/address'

const everyMs = 1_000
/** More different ones within a second are not noted. */
const mostWaiting = 5_000
const shownReaders = 50

/** An answer that somebody got who fetched a feed. */
export interface Fetched {
  showId: string
  name: string
  userAgent: string
  address: string
  status: number
}

/** Answers to the same asker, as they add up. */
interface Waiting extends Fetched {
  at: Date
  /** When it last was told what the feed is. */
  hasAt: Date | null
  whole: number
  same: number
}

/** Who fetches feeds: noted off the way of the requests, some at a time, a row for each program and neighbourhood. */
export function feedReaders({ database, clock, log }: Pick<Platform, 'database' | 'clock' | 'log'>) {
  let waiting = new Map<string, Waiting>()
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  async function write(): Promise<void> {
    timer = undefined
    const rows = [...waiting.values()]
    waiting = new Map()
    if (rows.length === 0) return
    try {
      await database.query(
        `INSERT INTO feed_readers (show_id, name, agent, address, first_at, last_at, status, has_at, whole_count, same_count)
          VALUES ${rows.map(() => '(?)').join(', ')}
          ON DUPLICATE KEY UPDATE last_at = VALUE(last_at), status = VALUE(status), has_at = COALESCE(VALUE(has_at), has_at),
          whole_count = whole_count + VALUE(whole_count), same_count = same_count + VALUE(same_count)`,
        {
          // Who is who is told here: a request is not to wait for it.
          replacements: rows.map(({ showId, name, userAgent, address, at, status, hasAt, whole, same }) => [
            showId,
            name,
            agentName(userAgent),
            shortenedAddress(address),
            at,
            at,
            status,
            hasAt,
            whole,
            same,
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
      const key = `${fetched.showId} ${fetched.name} ${fetched.address} ${fetched.userAgent}`
      let known = waiting.get(key)
      if (!known) {
        if (waiting.size >= mostWaiting) return
        known = { ...fetched, at: clock.now(), hasAt: null, whole: 0, same: 0 }
        waiting.set(key, known)
        timer ??= setTimeout(() => (writing = writing.then(write)), everyMs)
      }
      known.at = clock.now()
      known.status = fetched.status
      if (fetched.status === 200) known.whole++
      else if (fetched.status === 304) known.same++
      else return
      known.hasAt = known.at
    },
    /** Writes down what waits. */
    async flush(): Promise<void> {
      clearTimeout(timer)
      writing = writing.then(write)
      await writing
    },
  }
}

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
