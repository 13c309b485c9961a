import type { Sequelize, Transaction } from 'sequelize'
import { ageAt } from '@core/counting/age'
import { dayOf, hourOf, refusals, sources, type Step } from '@core/counting/count'
import { type Dimension, dimensions } from '@core/counting/dimensions'
import { localHour } from '@core/counting/localHour'
import { devices } from '@core/counting/programs'
import { eachPart, sqlPlain, sqlTime } from './literals'

/** Stands for all episodes of a show. */
export const allEpisodes = '00000000-0000-0000-0000-000000000000'

export const dimensionNumber = (dimension: Dimension): number => dimensions.indexOf(dimension)

/** What a stretch of the log adds to the sums. */
export function addedBy(
  steps: readonly Step[],
  labelOf: (text: string) => number,
  releasedAt: (episodeId: string) => Date | null,
) {
  const sums = new Map<string, number>()
  const traitSums = new Map<string, number>()
  const hours = new Map<string, number>()
  const add = (to: Map<string, number>, key: string, by: number): void => void to.set(key, (to.get(key) ?? 0) + by)

  for (const { showId, episodeId, hour, traits, refusal, by } of steps) {
    const day = dayOf(hour)
    const sum = (dimension: Dimension, label: number, of: string): void =>
      add(sums, `'${showId}', ${dimensionNumber(dimension)}, '${of}', '${day}', ${label}`, by)
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
  return { sums, traitSums, hours }
}

/** Adds to the sums that there are. */
export async function addToSums(
  database: Sequelize,
  { sums, traitSums, hours }: ReturnType<typeof addedBy>,
  transaction: Transaction,
): Promise<void> {
  for (const [table, columns, rows] of [
    ['download_sums', 'show_id, dimension, episode_id, day, label', sums],
    ['download_traits', 'show_id, episode_id, day, app, device, place, source', traitSums],
    ['download_hours', 'show_id, episode_id, hour', hours],
  ] as const) {
    const added = [...rows].filter(([, by]) => by !== 0).toSorted(([one], [other]) => (one < other ? -1 : 1))
    await eachPart(
      added,
      part =>
        `INSERT INTO ${table} (${columns}, downloads) VALUES ${part.map(([key, by]) => `(${key}, ${by})`).join(', ')}
          ON DUPLICATE KEY UPDATE downloads = downloads + VALUE(downloads)`,
      statement => database.query(statement, { transaction }),
    )
  }
}
