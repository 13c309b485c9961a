import { QueryTypes, type Transaction } from 'sequelize'
import { count, dayOf, type Fetch, listenerDayKey } from '@core/counting/count'
import { transact } from '../../platform/database/transact'
import { type DeliveryEntry, unpack } from '../../platform/deliveries/lines'
import type { Platform } from '../../platform/platform'
import { repeat, type Repeated } from '../../platform/repeat'
import { countFeedFetches } from './feedFetches'
import { fileSounds } from './fileSounds'
import { labels } from './labels'
import {
  askedOf,
  type KeptFetch,
  keptFetch,
  mostFetchesKept,
  readListenerDays,
  writeListenerDays,
} from './listenerDays'
import { addedBy, addToSums } from './sums'

const everyMs = 10_000
/** So many batches of the log are read at once, and of them no more than come to so many lines. */
const [mostBatches, mostLines] = [200, 20_000]

type Needed = Pick<Platform, 'database' | 'clock' | 'askers'>

/**
 * Counts what has come into the log of deliveries: what a stretch of it comes to and that it was counted are written in one
 * transaction, so a process may be killed at any time, and any number may run.
 */
export function counter({ database, clock, askers }: Needed) {
  const soundsOf = fileSounds(database)
  const labelsOf = labels(database)

  /** Counts the next stretch; tells whether there may be more. */
  async function countNext(transaction: Transaction): Promise<boolean> {
    const [free] = await database.query('SELECT id FROM counting WHERE id = 1 FOR UPDATE SKIP LOCKED', {
      type: QueryTypes.SELECT,
      transaction,
    })
    // Another process is at it.
    if (!free) return false
    const batches = await nextBatches(transaction)
    if (batches.length > 0) {
      await take((await Promise.all(batches.map(({ packed }) => unpack(packed)))).flat(), transaction)
      await database.query('UPDATE delivery_log SET is_counted = TRUE WHERE id IN (?)', {
        replacements: [batches.map(({ id }) => id)],
        transaction,
      })
    }
    await database.query('UPDATE counting SET counted_at = ? WHERE id = 1', {
      replacements: [clock.now()],
      transaction,
    })
    return batches.length > 0
  }

  async function nextBatches(transaction: Transaction): Promise<{ id: number; packed: Buffer }[]> {
    const waiting = await database.query<{ id: number; entries: number }>(
      `SELECT id, entries FROM delivery_log WHERE is_counted = FALSE ORDER BY id LIMIT ${mostBatches}`,
      { type: QueryTypes.SELECT, transaction },
    )
    let lines = 0
    const taken = waiting.filter(({ entries }, n) => (lines += entries) <= mostLines || n === 0)
    if (taken.length === 0) return []
    return database.query<{ id: number; packed: Buffer }>(
      'SELECT id, packed FROM delivery_log WHERE is_counted = FALSE AND id IN (?)',
      { replacements: [taken.map(({ id }) => id)], type: QueryTypes.SELECT, transaction },
    )
  }

  async function take(entries: readonly DeliveryEntry[], transaction: Transaction): Promise<void> {
    const media = entries.filter(({ kind, episodeId }) => kind === 'media' && episodeId !== null)
    const feed = entries.filter(({ kind }) => kind === 'feed')
    const released = await releasedFiles(media, transaction)
    const fetches = media.map(entry => fetchOf(entry, released))
    const soundOf = await soundsOf(
      fetches.map(({ fileId }) => fileId).filter(id => id !== ''),
      transaction,
    )

    const asked = new Map(fetches.map(fetch => [keyOf(fetch), askedOf(fetch)]))
    const before = await readListenerDays(database, [...asked.values()], transaction)
    const { days, changed, steps } = count(before, fetches, soundOf)

    const kept = new Map<string, KeptFetch[]>()
    const coarse = new Set<string>()
    for (const [n, fetch] of fetches.entries()) {
      const key = keyOf(fetch)
      if (media[n]!.isCoarse) coarse.add(key)
      const of = kept.get(key) ?? []
      if (of.length + (before.get(key)?.fetches ?? 0) < mostFetchesKept) of.push(keptFetch(fetch))
      kept.set(key, of)
    }
    const told = [...changed].map(key => ({
      ...days.get(key)!,
      isCoarse: coarse.has(key),
      kept: kept.get(key) ?? [],
    }))
    const names = new Set(told.flatMap(({ traits: { app, place } }) => (place ? [app, place] : [app])))
    for (const { traits } of steps) names.add(traits.app)
    const labelOf = await labelsOf(names, transaction)
    await writeListenerDays(database, told, labelOf, transaction)
    const releasedAt = await releaseTimes(new Set(steps.map(({ episodeId }) => episodeId)), transaction)
    await addToSums(database, addedBy(steps, labelOf, releasedAt), transaction)
    await countFeedFetches(database, feed, { programOf: askers.programOf, labelsOf }, transaction)
    if (coarse.size > 0)
      await database.query(
        'UPDATE counting SET coarse_until = GREATEST(COALESCE(coarse_until, :day), :day) WHERE id = 1',
        {
          replacements: {
            day: told
              .filter(({ isCoarse }) => isCoarse)
              .map(({ day }) => day)
              .toSorted()
              .at(-1),
          },
          transaction,
        },
      )
  }

  function fetchOf(entry: DeliveryEntry, released: ReadonlyMap<string, string>): Fetch {
    const { name, device, isRobot } = askers.programOf(entry.agent)
    const { at, showId, method, status, bytesSent, range, who, isHosted, isPrefetch, place, source, times = 1 } = entry
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

  async function releasedFiles(
    entries: readonly DeliveryEntry[],
    transaction: Transaction,
  ): Promise<ReadonlyMap<string, string>> {
    const old = new Set(entries.flatMap(({ isCoarse, episodeId }) => (isCoarse && episodeId ? [episodeId] : [])))
    if (old.size === 0) return new Map()
    const rows = await database.query<{ episodeId: string; fileId: string }>(
      "SELECT episode_id AS episodeId, file_id AS fileId FROM episode_files WHERE role = 'released' AND episode_id IN (?)",
      { replacements: [[...old]], type: QueryTypes.SELECT, transaction },
    )
    return new Map(rows.map(({ episodeId, fileId }) => [episodeId, fileId]))
  }

  async function releaseTimes(
    ids: ReadonlySet<string>,
    transaction: Transaction,
  ): Promise<(episodeId: string) => Date | null> {
    if (ids.size === 0) return () => null
    const rows = await database.query<{ id: string; releaseAt: Date | null }>(
      'SELECT id, release_at AS releaseAt FROM episodes WHERE id IN (?)',
      { replacements: [[...ids]], type: QueryTypes.SELECT, transaction },
    )
    const times = new Map(rows.map(({ id, releaseAt }) => [id, releaseAt]))
    return id => times.get(id) ?? null
  }

  return {
    /** Counts all that has come in. */
    async countAll(goesOn: () => boolean = () => true): Promise<void> {
      while (goesOn() && (await transact(database, countNext)));
    },
  }
}

const keyOf = (fetch: Fetch): string =>
  listenerDayKey({ episodeId: fetch.episodeId, day: dayOf(fetch.at), who: fetch.who })

/** Counts what has come in, every ten seconds. */
export function startCounting(platform: Needed, report: (error: unknown) => void): Repeated {
  const { countAll } = counter(platform)
  return repeat(everyMs, countAll, report)
}
