import { QueryTypes, type Transaction } from 'sequelize'
import {
  byListenerDay,
  count,
  dayOf,
  type Fetch,
  type FetchesByDay,
  listenerDayKey,
  type ListenerDays,
} from '@core/counting/count'
import { heardSteps } from '@core/counting/heard'
import { transact } from '../../platform/database/transact'
import { type DeliveryEntry, unpack } from '../../platform/deliveries/lines'
import type { Platform } from '../../platform/platform'
import { repeat, type Repeated } from '../../platform/repeat'
import { countFeedFetches } from './feedFetches'
import { fileSounds } from './fileSounds'
import { labels } from './labels'
import { askedOf, keptFetch, mostFetchesKept, readListenerDays, writeListenerDays } from './listenerDays'
import { addedBy, addHeard, addToSums, sumUpMonths } from './sums'

const everyMs = 10_000
/** So many batches of the log are read at once, and of them no more than come to so many lines. */
const [mostBatches, mostLines] = [200, 40_000]

/** What a batch of the log tells. */
interface Batch {
  fetched: FetchesByDay
  /** Of which listeners’ days it has old lines. */
  coarse: ReadonlySet<string>
  feed: readonly DeliveryEntry[]
}

type Needed = Pick<Platform, 'database' | 'clock' | 'askers' | 'log'>

/**
 * Counts what has come into the log of deliveries: what a stretch of it comes to and that it was counted are written in one
 * transaction, so a process may be killed at any time, and any number may run.
 */
export function counter({ database, clock, askers, log }: Needed, report = (error: unknown) => log.error(error)) {
  const soundsOf = fileSounds(database)
  const labelsOf = labels(database)
  /** Batches that are or were read, by their number; null for one that cannot be. */
  const ahead = new Map<number, Promise<Batch | null>>()
  /** They stay as they are, and hold up no other. */
  const broken = new Set<number>()

  /** Counts the next stretch; tells whether there may be more. */
  async function countNext(transaction: Transaction): Promise<boolean> {
    const [state] = await database.query<{ monthsTo: string | null }>(
      'SELECT CAST(months_to AS CHAR) AS monthsTo FROM counting WHERE id = 1 FOR UPDATE SKIP LOCKED',
      { type: QueryTypes.SELECT, transaction },
    )
    // Another process is at it.
    if (!state) return false
    const monthsTo = await sumUp(state.monthsTo, transaction)
    const [batches, next] = await nextBatches(transaction)
    if (batches.length > 0) {
      const read = await Promise.all(batches.map(batchOf))
      ahead.clear()
      // What comes next is read while the database is at what comes now.
      for (const id of next) void batchOf(id)
      await take(
        read.flatMap(batch => batch ?? []),
        monthsTo,
        transaction,
      )
      const whole = batches.filter((_, n) => read[n])
      if (whole.length > 0)
        await database.query('UPDATE delivery_log SET is_counted = TRUE WHERE id IN (?)', {
          replacements: [whole],
          transaction,
        })
    }
    await database.query('UPDATE counting SET counted_at = ? WHERE id = 1', {
      replacements: [clock.now()],
      transaction,
    })
    return batches.length > 0
  }

  /** Sums up months that are over by now; tells the day before which they are. */
  async function sumUp(from: string | null, transaction: Transaction): Promise<string> {
    const to = `${dayOf(clock.now()).slice(0, 7)}-01`
    if (from !== null && from >= to) return from
    await sumUpMonths(database, { from, to }, transaction)
    await database.query('UPDATE counting SET months_to = ? WHERE id = 1', { replacements: [to], transaction })
    return to
  }

  /** The batches that are counted now, and those after them. */
  async function nextBatches(transaction: Transaction): Promise<[now: number[], next: number[]]> {
    const waiting = await database.query<{ id: number; entries: number }>(
      `SELECT id, entries FROM delivery_log WHERE is_counted = FALSE AND id NOT IN (:broken) ORDER BY id LIMIT ${mostBatches}`,
      { replacements: { broken: [0, ...broken] }, type: QueryTypes.SELECT, transaction },
    )
    const stretches: [number[], number[]] = [[], []]
    let lines = 0
    for (const [n, { id, entries }] of waiting.entries()) {
      lines += entries
      if (lines <= mostLines || n === 0) stretches[0].push(id)
      else if (lines <= 2 * mostLines) stretches[1].push(id)
    }
    return stretches
  }

  function batchOf(id: number): Promise<Batch | null> {
    const known = ahead.get(id)
    if (known) return known
    const read = readBatch(id)
    ahead.set(id, read)
    // What could not be read is read again.
    read.catch(() => ahead.delete(id))
    return read
  }

  /** What a batch holds never changes, so it is read beside the transaction in which it is counted. */
  async function readBatch(id: number): Promise<Batch | null> {
    const [row] = await database.query<{ packed: Buffer }>('SELECT packed FROM delivery_log WHERE id = ?', {
      replacements: [id],
      type: QueryTypes.SELECT,
    })
    let entries: DeliveryEntry[]
    try {
      entries = await unpack(row!.packed)
    } catch (error) {
      broken.add(id)
      report(
        new Error(`Batch ${id} of the delivery log cannot be read, and is not counted. ${String(error)}`, {
          cause: error,
        }),
      )
      return null
    }
    const media = entries.filter(({ kind, episodeId }) => kind === 'media' && episodeId !== null)
    const released = await releasedFiles(media)
    const fetches = media.map(entry => fetchOf(entry, released))
    return {
      fetched: byListenerDay(fetches),
      coarse: new Set(fetches.filter((_, n) => media[n]!.isCoarse).map(fetch => listenerDayKey(askedOf(fetch)))),
      feed: entries.filter(({ kind }) => kind === 'feed'),
    }
  }

  async function take(batches: readonly Batch[], monthsTo: string, transaction: Transaction): Promise<void> {
    const fetched = joined(batches.map(batch => batch.fetched))
    const coarse = new Set(batches.flatMap(batch => [...batch.coarse]))
    const feed = batches.flatMap(batch => batch.feed)
    const [before, releasedAt] = await Promise.all([
      readListenerDays(
        database,
        Array.from(fetched.values(), ([fetch]) => askedOf(fetch!)),
        transaction,
      ),
      releaseTimes(new Set(Array.from(fetched.values(), ([fetch]) => fetch!.episodeId))),
    ])
    const soundOf = await soundsOf(filesIn(fetched, before))

    const { changed, steps } = count(before, fetched, soundOf)

    const told = Array.from(changed, ([key, day]) => ({
      day,
      isCoarse: coarse.has(key),
      kept: fetched
        .get(key)!
        .slice(0, Math.max(0, mostFetchesKept - (before.get(key)?.fetches ?? 0)))
        .map(keptFetch)
        .join(''),
    }))
    // Also of what is taken back from where it was.
    const names = new Set(
      [...changed.values(), ...steps].flatMap(({ traits: { app, place } }) => (place === null ? [app] : [app, place])),
    )
    const labelOf = await labelsOf(names)
    const added = addedBy(steps, labelOf, releasedAt, monthsTo)
    const heard = heardSteps(before, changed, soundOf)
    // One after the other: what is sent behind a statement that broke the transaction off would be outside of it.
    await writeListenerDays(told, labelOf, transaction)
    await addToSums(added, transaction)
    await addHeard(heard, transaction)
    await countFeedFetches(database, feed, { programOf: askers.programOf, labelsOf }, transaction)
    if (coarse.size > 0)
      await database.query(
        'UPDATE counting SET coarse_until = GREATEST(COALESCE(coarse_until, :day), :day) WHERE id = 1',
        {
          replacements: {
            day: told
              .filter(({ isCoarse }) => isCoarse)
              .map(({ day: { day } }) => day)
              .toSorted()
              .at(-1),
          },
          transaction,
        },
      )
  }

  function fetchOf(entry: DeliveryEntry, released: ReadonlyMap<string, string>): Fetch {
    const { name, device, isRobot } = askers.programOf(entry.agent)
    const { at, showId, method, status, bytesSent, range, who, isHosted, isPrefetch, place, source, times } = entry
    return {
      at,
      showId,
      episodeId: entry.episodeId!,
      // Old lines do not tell which: the one that the episode has now.
      fileId: entry.fileId ?? (entry.isCoarse ? (released.get(entry.episodeId!) ?? '') : ''),
      method,
      status,
      bytesSent,
      range: range && [range.start, range.end],
      who,
      isRobot,
      isHosted,
      isPrefetch,
      times,
      traits: { app: name, device, place, source },
    }
  }

  async function releasedFiles(entries: readonly DeliveryEntry[]): Promise<ReadonlyMap<string, string>> {
    const old = new Set(entries.flatMap(({ isCoarse, episodeId }) => (isCoarse && episodeId ? [episodeId] : [])))
    if (old.size === 0) return new Map()
    const rows = await database.query<{ episodeId: string; fileId: string }>(
      "SELECT episode_id AS episodeId, file_id AS fileId FROM episode_files WHERE role = 'released' AND episode_id IN (?)",
      { replacements: [[...old]], type: QueryTypes.SELECT },
    )
    return new Map(rows.map(({ episodeId, fileId }) => [episodeId, fileId]))
  }

  async function releaseTimes(ids: ReadonlySet<string>): Promise<(episodeId: string) => Date | null> {
    if (ids.size === 0) return () => null
    const rows = await database.query<{ id: string; releaseAt: Date | null }>(
      'SELECT id, release_at AS releaseAt FROM episodes WHERE id IN (?)',
      { replacements: [[...ids]], type: QueryTypes.SELECT },
    )
    const times = new Map(rows.map(({ id, releaseAt }) => [id, releaseAt]))
    return id => times.get(id) ?? null
  }

  return {
    /** Counts all that has come in. */
    async countAll(goesOn: () => boolean = () => true): Promise<void> {
      await database.query('INSERT IGNORE INTO counting (id) VALUES (1)')
      while (goesOn() && (await transact(database, countNext)));
    },
  }
}

/** What several batches tell of listeners' days, in their order. */
function joined(batches: readonly FetchesByDay[]): FetchesByDay {
  const days = new Map<string, readonly Fetch[]>()
  for (const batch of batches)
    for (const [key, fetches] of batch) {
      const known = days.get(key)
      days.set(key, known ? [...known, ...fetches] : fetches)
    }
  return days
}

function filesIn(fetched: FetchesByDay, before: ListenerDays): ReadonlySet<string> {
  const files = new Set<string>()
  for (const fetches of fetched.values()) for (const { fileId } of fetches) if (fileId !== '') files.add(fileId)
  for (const { spans } of before.values()) for (const fileId of Object.keys(spans)) files.add(fileId)
  return files
}

/** Counts what has come in, every ten seconds. */
export function startCounting(platform: Needed, report: (error: unknown) => void): Repeated {
  const { countAll } = counter(platform, report)
  return repeat(everyMs, countAll, report)
}
