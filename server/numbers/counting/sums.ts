import type { Sequelize, Transaction } from 'sequelize'
import { ageAt } from '@core/counting/age'
import { dayOf, hourOf, refusals, sources, type Step } from '@core/counting/count'
import { type Dimension, dimensions } from '@core/counting/dimensions'
import type { HeardStep } from '@core/counting/heard'
import { localHour } from '@core/counting/localHour'
import { devices } from '@core/counting/programs'
import { eachPart, sqlPlain, sqlTime } from './literals'

/** Stands for all episodes of a show. */
export const allEpisodes = '00000000-0000-0000-0000-000000000000'

export const dimensionNumber = (dimension: Dimension): number => dimensions.indexOf(dimension)

/** What is asked for by the month where there are whole ones. */
export const byMonth: readonly Dimension[] = ['app', 'device', 'place', 'source', 'local-hour', 'refusal']

/** What a stretch of the log adds to the sums. */
export function addedBy(
  steps: readonly Step[],
  labelOf: (text: string) => number,
  releasedAt: (episodeId: string) => Date | null,
) {
  const sums = new Map<string, number>()
  const months = new Map<string, number>()
  const traitSums = new Map<string, number>()
  const hours = new Map<string, number>()
  const add = (to: Map<string, number>, key: string, by: number): void => void to.set(key, (to.get(key) ?? 0) + by)

  for (const { showId, episodeId, hour, traits, refusal, by } of steps) {
    const day = dayOf(hour)
    const sum = (dimension: Dimension, label: number, of: string): void => {
      const which = `'${showId}', ${dimensionNumber(dimension)}`
      add(sums, `${which}, '${of}', '${day}', ${label}`, by)
      if (of === allEpisodes && byMonth.includes(dimension))
        add(months, `${which}, '${day.slice(0, 7)}-01', ${label}`, by)
    }
    if (refusal) {
      for (const of of [episodeId, allEpisodes]) sum('refusal', refusals.indexOf(refusal), of)
      continue
    }
    const [app, device, source] = [labelOf(traits.app), devices.indexOf(traits.device), sources.indexOf(traits.source)]
    const place = traits.place === null ? 0 : labelOf(traits.place)
    add(traitSums, `'${showId}', '${episodeId}', '${day}', ${app}, ${device}, ${place}, ${source}`, by)
    sum('day', 0, episodeId)
    sum('day', 0, allEpisodes)
    sum('app', app, allEpisodes)
    sum('device', device, allEpisodes)
    sum('place', place, allEpisodes)
    sum('source', source, allEpisodes)
    sum('hour', hour.getUTCHours(), allEpisodes)
    const local = traits.place === null ? null : localHour(hour, traits.place.slice(0, 2))
    if (local !== null) sum('local-hour', local, allEpisodes)
    const since = releasedAt(episodeId)
    if (since && hour >= hourOf(since) && ageAt(since, hour).unit === 'hours')
      add(hours, `${sqlPlain(showId)}, ${sqlPlain(episodeId)}, ${sqlTime(hour)}`, by)
  }
  return { sums, months, traitSums, hours }
}

/** Adds to the sums that there are. */
export async function addToSums(
  database: Sequelize,
  { sums, months, traitSums, hours }: ReturnType<typeof addedBy>,
  transaction: Transaction,
): Promise<void> {
  for (const [table, columns, rows] of [
    ['download_sums', 'show_id, dimension, episode_id, day, label', sums],
    ['download_months', 'show_id, dimension, month, label', months],
    ['download_traits', 'show_id, episode_id, day, app, device, place, source', traitSums],
    ['download_hours', 'show_id, episode_id, hour', hours],
  ] as const)
    await addTo(database, { table, columns, value: 'downloads' }, rows, transaction)
}

/** Adds to how far files were heard. */
export function addHeard(database: Sequelize, steps: readonly HeardStep[], transaction: Transaction): Promise<void> {
  const rows = new Map<string, number>()
  for (const { showId, episodeId, fileId, part, by } of steps) {
    const key = `${sqlPlain(showId)}, ${sqlPlain(episodeId)}, ${sqlPlain(fileId)}, ${part}`
    rows.set(key, (rows.get(key) ?? 0) + by)
  }
  const table = { table: 'heard_sums', columns: 'show_id, episode_id, file_id, part', value: 'listeners' }
  return addTo(database, table, rows, transaction)
}

async function addTo(
  database: Sequelize,
  { table, columns, value }: Record<'table' | 'columns' | 'value', string>,
  rows: ReadonlyMap<string, number>,
  transaction: Transaction,
): Promise<void> {
  const added = [...rows].filter(([, by]) => by !== 0).toSorted(([one], [other]) => (one < other ? -1 : 1))
  await eachPart(
    added,
    part =>
      `INSERT INTO ${table} (${columns}, ${value}) VALUES ${part.map(([key, by]) => `(${key}, ${by})`).join(', ')}
        ON DUPLICATE KEY UPDATE ${value} = ${value} + VALUE(${value})`,
    statement => database.query(statement, { transaction }),
  )
}
