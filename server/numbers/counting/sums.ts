import type { Sequelize, Transaction } from 'sequelize'
import { ageAt } from '@core/counting/age'
import { dayOf, hourOf, refusals, sources, type Step } from '@core/counting/count'
import { type Dimension, dimensions } from '@core/counting/dimensions'
import type { HeardStep } from '@core/counting/heard'
import { localHour } from '@core/counting/localHour'
import { devices } from '@core/counting/programs'
import { bulk } from '../../platform/database/bulk'
import { timeOf } from './literals'

/** Stands for all episodes of a show. */
export const allEpisodes = '00000000-0000-0000-0000-000000000000'

export const dimensionNumber = (dimension: Dimension): number => dimensions.indexOf(dimension)

/** Labels are 32 bits. */
const mostLabels = 2 ** 32

/** What is asked for by the month where there are whole ones. */
export const byMonth: readonly Dimension[] = ['app', 'device', 'place', 'source', 'local-hour', 'refusal']

/** Figures to add to the rows of a table, each under the values of its key with strokes between. */
type Added = Map<string, number>
const add = (to: Added, key: string, by: number): void => void to.set(key, (to.get(key) ?? 0) + by)

/** Puts them to what there is, in the order of the key. */
function addTo(
  { table, columns, value }: Record<'table' | 'columns' | 'value', string>,
  added: Added,
  transaction: Transaction,
): Promise<void> {
  return bulk(
    transaction,
    `INSERT INTO ${table} (${columns}, ${value}) VALUES (${columns.replaceAll(/\w+/g, '?')}, ?)
      ON DUPLICATE KEY UPDATE ${value} = ${value} + VALUE(${value})`,
    [...added].filter(([, by]) => by !== 0).toSorted(([one], [other]) => (one < other ? -1 : 1)),
    ([key, by]) => [...key.split('|'), by],
  )
}

/** What a stretch of the log adds to the sums, and to months that are summed up: those before `monthsTo`. */
export function addedBy(
  steps: readonly Step[],
  labelOf: (text: string) => number,
  releasedAt: (episodeId: string) => Date | null,
  monthsTo: string | null,
) {
  const [sums, months, traitSums, hours]: Added[] = [new Map(), new Map(), new Map(), new Map()]
  /** Of a show and a day, by dimension and label as one number: so most of what is added needs no text of its own. */
  const ofShows = new Map<string, Map<number, number>>()
  for (const { showId, episodeId, hour, traits, refusal, by } of steps) {
    const day = dayOf(hour)
    const name = `${showId}|${day}`
    const ofShow = ofShows.get(name) ?? new Map<number, number>()
    ofShows.set(name, ofShow)
    const sum = (dimension: Dimension, label: number): void => {
      const code = dimensionNumber(dimension) * mostLabels + label
      ofShow.set(code, (ofShow.get(code) ?? 0) + by)
    }
    const sumOfEpisode = (dimension: Dimension, label: number): void =>
      add(sums, `${showId}|${dimensionNumber(dimension)}|${episodeId}|${day}|${label}`, by)
    if (refusal) {
      sum('refusal', refusals.indexOf(refusal))
      sumOfEpisode('refusal', refusals.indexOf(refusal))
      continue
    }
    const [app, device, source] = [labelOf(traits.app), devices.indexOf(traits.device), sources.indexOf(traits.source)]
    const place = traits.place === null ? 0 : labelOf(traits.place)
    add(traitSums, `${showId}|${episodeId}|${day}|${app}|${device}|${place}|${source}`, by)
    sumOfEpisode('day', 0)
    sum('day', 0)
    sum('app', app)
    sum('device', device)
    sum('place', place)
    sum('source', source)
    sum('hour', hour.getUTCHours())
    const local = traits.place === null ? null : localHour(hour, traits.place.slice(0, 2))
    if (local !== null) sum('local-hour', local)
    const since = releasedAt(episodeId)
    if (since && hour >= hourOf(since) && ageAt(since, hour).unit === 'hours')
      add(hours, `${showId}|${episodeId}|${timeOf(hour)}`, by)
  }
  for (const [name, ofShow] of ofShows) {
    const [showId, day] = name.split('|') as [string, string]
    const isSummedUp = monthsTo !== null && day < monthsTo
    for (const [code, by] of ofShow) {
      const [number, label] = [Math.floor(code / mostLabels), code % mostLabels]
      add(sums, `${showId}|${number}|${allEpisodes}|${day}|${label}`, by)
      if (isSummedUp && byMonth.includes(dimensions[number]!))
        add(months, `${showId}|${number}|${day.slice(0, 7)}-01|${label}`, by)
    }
  }
  return { sums, months, traitSums, hours }
}

/** Adds to the sums that there are. */
export async function addToSums(
  { sums, months, traitSums, hours }: ReturnType<typeof addedBy>,
  transaction: Transaction,
): Promise<void> {
  for (const [table, columns, added] of [
    ['download_sums', 'show_id, dimension, episode_id, day, label', sums],
    ['download_months', 'show_id, dimension, month, label', months],
    ['download_traits', 'show_id, episode_id, day, app, device, place, source', traitSums],
    ['download_hours', 'show_id, episode_id, hour', hours],
  ] as const)
    await addTo({ table, columns, value: 'downloads' }, added, transaction)
}

/** Adds to how far files were heard. */
export function addHeard(steps: readonly HeardStep[], transaction: Transaction): Promise<void> {
  const added: Added = new Map()
  for (const { showId, episodeId, fileId, part, by } of steps)
    add(added, `${showId}|${episodeId}|${fileId}|${part}`, by)
  const table = { table: 'heard_sums', columns: 'show_id, episode_id, file_id, part', value: 'listeners' }
  return addTo(table, added, transaction)
}

/** Sums up the months from one day to another. */
export async function sumUpMonths(
  database: Sequelize,
  { from, to }: { from: string | null; to: string },
  transaction: Transaction,
): Promise<void> {
  await database.query(
    `INSERT INTO download_months (show_id, dimension, month, label, downloads)
      SELECT show_id, dimension, CAST(DATE_FORMAT(day, '%Y-%m-01') AS DATE) AS first, label, SUM(downloads) FROM download_sums
      WHERE dimension IN (:dimensions) AND episode_id = '${allEpisodes}' AND day >= :from AND day < :to
      GROUP BY show_id, dimension, first, label`,
    { replacements: { dimensions: byMonth.map(dimensionNumber), from: from ?? '0001-01-01', to }, transaction },
  )
}
