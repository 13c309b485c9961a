import { QueryTypes, type Sequelize } from 'sequelize'
import { type AgeNumbers, comparedAges, type EpisodeComparison } from '@contract/numbers'
import { type Age, ageAt, dayAfter, daysBetween, running } from '@core/counting/age'
import { bandOf } from '@core/counting/band'
import type { Platform } from '../../platform/platform'
import { allEpisodes, dimensionNumber } from '../counting/sums'

/** So many episodes tell what is usual. */
const usualOf = 10
const hourMs = 3600_000

interface Released {
  id: string
  title: string
  number: number | null
  kind: string
  releasedAt: Date
}

const columns = 'id, title, number, kind, release_at AS releasedAt'

async function releasedEpisode(
  database: Sequelize,
  showId: string,
  id: string | null,
  now: Date,
): Promise<Released | null> {
  const [row] = await database.query<Released>(
    `SELECT ${columns} FROM episodes WHERE show_id = :showId AND status IN ('released', 'retired') AND release_at <= :now
      ${id ? 'AND id = :id' : ''} ORDER BY release_at DESC, id LIMIT 1`,
    { replacements: { showId, id, now }, type: QueryTypes.SELECT },
  )
  return row ?? null
}

/**
 * An episode at its age beside the ten of its kind that went out before it; without an id the newest. What was dated back had no
 * first days here, and tells nothing of them.
 */
export async function ageNumbers(
  { database, clock }: Pick<Platform, 'database' | 'clock'>,
  showId: string,
  id: string | null,
): Promise<AgeNumbers | null> {
  const now = clock.now()
  const episode = await releasedEpisode(database, showId, id, now)
  if (!episode) return null
  const age = ageAt(episode.releasedAt, now)
  const before = await database.query<Released>(
    `SELECT ${columns} FROM episodes WHERE show_id = :showId AND status IN ('released', 'retired') AND kind = :kind
      AND release_at < :releasedAt AND release_at >= created_at
      AND release_at >= (SELECT MIN(day) FROM download_sums WHERE show_id = :showId AND dimension = :number AND episode_id = '${allEpisodes}')
      ORDER BY release_at DESC LIMIT ${usualOf}`,
    {
      replacements: { showId, kind: episode.kind, releasedAt: episode.releasedAt, number: dimensionNumber('day') },
      type: QueryTypes.SELECT,
    },
  )
  const comparable = before.filter(({ releasedAt }) => isAsOld(ageAt(releasedAt, now), age))
  const all = [episode, ...comparable]
  const steps =
    age.unit === 'hours' ? await byHour(database, showId, all, age.many) : await byDay(database, showId, all, age.many)
  const [curve, ...others] = all.map(({ id: of }) => running(steps.get(of)!))
  const usualCurve = curve!.map((_, n) => bandOf(others.map(other => other[n]!)))
  return {
    episode: { id: episode.id, title: episode.title, releasedAt: episode.releasedAt.toISOString() },
    age,
    downloads: curve!.at(-1) ?? 0,
    total: await totalOf(database, showId, episode.id),
    usual: usualCurve.at(-1) ?? null,
    curve: curve!,
    usualCurve,
  }
}

const isAsOld = (other: Age, age: Age): boolean =>
  other.unit === age.unit ? other.many >= age.many : other.unit === 'days'

type Steps = Map<string, number[]>

async function byHour(
  database: Sequelize,
  showId: string,
  episodes: readonly Released[],
  hours: number,
): Promise<Steps> {
  const rows = await database.query<{ episodeId: string; hour: Date; downloads: number }>(
    'SELECT episode_id AS episodeId, hour, downloads FROM download_hours WHERE show_id = ? AND episode_id IN (?)',
    { replacements: [showId, episodes.map(({ id }) => id)], type: QueryTypes.SELECT },
  )
  const steps: Steps = new Map(episodes.map(({ id }) => [id, Array.from({ length: hours + 1 }, () => 0)]))
  const begins = new Map(episodes.map(({ id, releasedAt }) => [id, Math.floor(+releasedAt / hourMs)]))
  for (const { episodeId, hour, downloads } of rows) {
    const at = Math.floor(+hour / hourMs) - begins.get(episodeId)!
    if (at >= 0 && at <= hours) steps.get(episodeId)![at]! += downloads
  }
  return steps
}

/** By the days of its age, as many as are given. */
async function byDay(database: Sequelize, showId: string, episodes: readonly Released[], days: number): Promise<Steps> {
  const ranges = episodes.map(
    ({ id, releasedAt }) => [id, dayAfter(releasedAt, 0), dayAfter(releasedAt, days - 1)] as const,
  )
  const rows = await database.query<{ episodeId: string; day: string; downloads: number }>(
    `SELECT episode_id AS episodeId, CAST(day AS CHAR) AS day, downloads FROM download_sums
      WHERE show_id = ? AND dimension = ? AND (${ranges.map(() => '(episode_id = ? AND day BETWEEN ? AND ?)').join(' OR ')})`,
    { replacements: [showId, dimensionNumber('day'), ...ranges.flat()], type: QueryTypes.SELECT },
  )
  const steps: Steps = new Map(episodes.map(({ id }) => [id, Array.from({ length: days }, () => 0)]))
  const begins = new Map(episodes.map(({ id, releasedAt }) => [id, releasedAt]))
  for (const { episodeId, day, downloads } of rows)
    steps.get(episodeId)![daysBetween(begins.get(episodeId)!, new Date(day))]! += downloads
  return steps
}

async function totalOf(database: Sequelize, showId: string, id: string): Promise<number> {
  const [row] = await database.query<{ total: string | number | null }>(
    'SELECT SUM(downloads) AS total FROM download_sums WHERE show_id = ? AND dimension = ? AND episode_id = ?',
    { replacements: [showId, dimensionNumber('day'), id], type: QueryTypes.SELECT },
  )
  return Number(row?.total ?? 0)
}

const longestCompared = comparedAges.at(-1)!

/** Some episodes at the same ages, in the order that is given; what is not of the show, or not out, is left out. */
export async function comparison(
  { database, clock }: Pick<Platform, 'database' | 'clock'>,
  showId: string,
  ids: readonly string[],
): Promise<EpisodeComparison> {
  const now = clock.now()
  const found = await database.query<Released>(
    `SELECT ${columns} FROM episodes WHERE show_id = ? AND id IN (?) AND status IN ('released', 'retired') AND release_at <= ?`,
    { replacements: [showId, ids, now], type: QueryTypes.SELECT },
  )
  const episodes = ids.flatMap(id => found.find(each => each.id === id) ?? [])
  if (episodes.length === 0) return { episodes: [] }
  const steps = await byDay(database, showId, episodes, longestCompared)
  return {
    episodes: await Promise.all(
      episodes.map(async ({ id, title, number, releasedAt }) => {
        const days = daysBetween(releasedAt, now)
        const curve = running(steps.get(id)!.slice(0, Math.min(days, longestCompared)))
        return {
          id,
          title,
          number,
          releasedAt: releasedAt.toISOString(),
          after: comparedAges.map(each => (each <= days ? curve[each - 1]! : null)),
          total: await totalOf(database, showId, id),
          curve,
        }
      }),
    ),
  }
}
