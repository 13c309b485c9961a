import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import { dayOf } from '@core/counting/count'
import { toldReaders } from '@core/counting/readers'
import type { Program } from '@core/counting/programs'
import type { DeliveryEntry } from '../../platform/deliveries/lines'
import { inParts, sqlPlain } from './literals'
import { allEpisodes, dimensionNumber } from './sums'

interface Fetcher {
  showId: string
  day: string
  who: string
  app: string
}

/** Who fetched feeds: each listener once a day, by program; and for how many a program says that it fetches. */
export async function countFeedFetches(
  database: Sequelize,
  entries: readonly DeliveryEntry[],
  {
    programOf,
    labelsOf,
  }: {
    programOf: (agent: string) => Program
    labelsOf: (texts: Iterable<string>) => Promise<(text: string) => number>
  },
  transaction: Transaction,
): Promise<void> {
  const fetchers = new Map<string, Fetcher>()
  const readers = new Map<string, number>()
  const labelOf = await labelsOf(new Set(entries.map(({ agent }) => programOf(agent).name)))
  const keyOf = ({ showId, day, app }: Pick<Fetcher, 'showId' | 'day' | 'app'>, dimension: number): string =>
    `${sqlPlain(showId)}, ${dimension}, '${allEpisodes}', ${sqlPlain(day)}, ${labelOf(app)}`
  for (const { showId, at, who, agent, status, isHosted } of entries) {
    if (status !== 200 && status !== 304) continue
    const told = toldReaders(agent)
    const { name: app, isRobot } = programOf(agent)
    const day = dayOf(at)
    if (told !== null) {
      const key = keyOf({ showId, day, app }, dimensionNumber('feed-readers'))
      readers.set(key, Math.max(readers.get(key) ?? 0, told))
    } else if (!isRobot && !isHosted) fetchers.set(`${showId} ${day} ${who}`, { showId, day, who, app })
  }

  const known = await knownFetchers(database, [...fetchers.values()], transaction)
  const added = [...fetchers].filter(([key]) => !known.has(key)).map(([, fetcher]) => fetcher)
  for (const part of inParts(added)) {
    const rows = part.map(({ showId, day, who }) => `(${sqlPlain(showId)}, ${sqlPlain(day)}, x'${who}')`)
    await database.query(`INSERT IGNORE INTO feed_days (show_id, day, who) VALUES ${rows.join(', ')}`, { transaction })
  }
  const sums = new Map<string, number>()
  for (const fetcher of added) {
    const key = keyOf(fetcher, dimensionNumber('feed-fetchers'))
    sums.set(key, (sums.get(key) ?? 0) + 1)
  }
  for (const [rows, merged] of [
    [sums, 'downloads + VALUE(downloads)'],
    [readers, 'GREATEST(downloads, VALUE(downloads))'],
  ] as const)
    for (const part of inParts([...rows].toSorted()))
      await database.query(
        `INSERT INTO download_sums (show_id, dimension, episode_id, day, label, downloads)
          VALUES ${part.map(([key, many]) => `(${key}, ${many})`).join(', ')} ON DUPLICATE KEY UPDATE downloads = ${merged}`,
        { transaction },
      )
}

async function knownFetchers(
  database: Sequelize,
  fetchers: readonly Fetcher[],
  transaction: Transaction,
): Promise<ReadonlySet<string>> {
  const known = new Set<string>()
  for (const part of inParts(fetchers)) {
    const keys = part.map(({ showId, day, who }) => `(${sqlPlain(showId)}, ${sqlPlain(day)}, x'${who}')`)
    const rows = await database.query<{ showId: string; day: string; who: string }>(
      `SELECT show_id AS showId, CAST(day AS CHAR) AS day, LOWER(HEX(who)) AS who FROM feed_days
        WHERE (show_id, day, who) IN (${keys.join(', ')})`,
      { type: QueryTypes.SELECT, transaction },
    )
    for (const { showId, day, who } of rows) known.add(`${showId} ${day} ${who}`)
  }
  return known
}
