import { QueryTypes, type Sequelize } from 'sequelize'
import type { NumbersFilter, ShowNumbers } from '@contract/numbers'
import { dayOf, refusals, sources } from '@core/counting/count'
import { type Dimension, dimensions } from '@core/counting/dimensions'
import { wholeMonths } from '@core/counting/months'
import { devices } from '@core/counting/programs'
import { shown } from '@core/counting/shown'
import { hoursOfWeek, weekHours } from '@core/counting/week'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { allEpisodes, byMonth, dimensionNumber } from '../counting/sums'
import { marksOf } from './marks'

const hourMs = 3600_000
const [dayMs, completeAfterMs] = [24 * hourMs, 2 * hourMs]
/** So old an episode is no new one any more. */
const newDays = 30

interface Sum {
  dimension: Dimension
  label: number
  text: string | null
  downloads: number
}

/** How the figures came about, and how far they go. */
export async function countingState({
  database,
  askers,
  configuration,
}: Pick<Platform, 'database' | 'askers' | 'configuration'>): Promise<ShowNumbers['state']> {
  const [row] = await database.query<{ countedAt: Date | null; coarseUntil: string | null }>(
    'SELECT counted_at AS countedAt, CAST(coarse_until AS CHAR) AS coarseUntil FROM counting WHERE id = 1',
    { type: QueryTypes.SELECT },
  )
  const countedAt = row?.countedAt ?? null
  return {
    countedAt: countedAt && countedAt.toISOString(),
    completeTo: countedAt && dayOf(new Date(+countedAt - dayMs - completeAfterMs)),
    coarseUntil: row?.coarseUntil ?? null,
    programsDated: askers.programsDated,
    placesMadeAt: askers.placesMadeAt && askers.placesMadeAt.toISOString(),
    logDays: configuration.logDays,
  }
}

/** What a show's downloads come to, of all episodes or of one. */
export async function showNumbers(
  platform: Pick<Platform, 'database' | 'clock' | 'askers' | 'configuration'>,
  showId: string,
  filter: NumbersFilter,
): Promise<ShowNumbers> {
  const { database, clock } = platform
  const [from, to] = [filter.from ?? '2000-01-01', filter.to ?? dayOf(clock.now())]
  const asked = { showId, from, to, episode: filter.episode ?? null }
  const [state, show, sums, days, byHour, byAge, readers, marks] = await Promise.all([
    countingState(platform),
    Show.findByPk(showId, { attributes: ['id', 'zone'], rejectOnEmpty: true }),
    asked.episode ? sumsOfEpisode(database, { ...asked, episode: asked.episode }) : sumsOfShow(database, asked),
    daysOf(database, asked),
    asked.episode ? null : hoursOf(database, asked),
    asked.episode ? null : byEpisodeAge(database, asked),
    asked.episode ? null : subscribers(database, asked),
    marksOf(database, showId),
  ])
  const of = (dimension: Dimension): Sum[] => sums.filter(sum => sum.dimension === dimension)
  const named = (dimension: Dimension) =>
    shown(of(dimension).map(({ text, downloads }) => ({ name: text ?? '', downloads })))
  const total = days.reduce((sum, { downloads }) => sum + downloads, 0)
  return {
    state,
    from: filter.from ?? days[0]?.day ?? to,
    to,
    total,
    days,
    apps: named('app'),
    devices: shown(of('device').map(({ label, downloads }) => ({ name: devices[label]!, downloads }))),
    places: named('place'),
    sources: of('source').map(({ label, downloads }) => ({ source: sources[label]!, downloads })),
    hours: byHour && hoursOfWeek(byHour, show.zone),
    localHours: asked.episode ? null : localHours(of('local-hour')),
    byEpisodeAge: byAge,
    refusals: of('refusal').map(({ label, downloads }) => ({ refusal: refusals[label]!, listeners: downloads })),
    subscribers: readers,
    marks,
  }
}

interface Asked {
  showId: string
  from: string
  to: string
  episode: string | null
}

/** Whole months are read as such where they are summed up, and by the day what is before and after them. */
async function sumsOfShow(database: Sequelize, { showId, from, to }: Asked): Promise<Sum[]> {
  const [counting] = await database.query<{ monthsTo: string | null }>(
    'SELECT CAST(months_to AS CHAR) AS monthsTo FROM counting WHERE id = 1',
    { type: QueryTypes.SELECT },
  )
  const { first, beyond } = wholeMonths(from, to, counting?.monthsTo ?? null)
  const rows = await database.query<{
    dimension: number
    label: number
    text: string | null
    downloads: string | number
  }>(
    `SELECT s.dimension, s.label, l.text, s.downloads FROM (
        SELECT dimension, label, SUM(downloads) AS downloads FROM (
          SELECT dimension, label, downloads FROM download_months
            WHERE show_id = :showId AND dimension IN (:numbers) AND month >= :first AND month < :beyond
          UNION ALL SELECT dimension, label, downloads FROM download_sums
            WHERE show_id = :showId AND dimension IN (:numbers) AND episode_id = '${allEpisodes}' AND day >= :from AND day < :first
          UNION ALL SELECT dimension, label, downloads FROM download_sums
            WHERE show_id = :showId AND dimension IN (:numbers) AND episode_id = '${allEpisodes}' AND day >= :beyond AND day <= :to
        ) parts GROUP BY dimension, label HAVING downloads > 0
      ) s LEFT JOIN labels l ON l.id = s.label AND s.dimension IN (:labelled)`,
    {
      replacements: {
        showId,
        from,
        to,
        first,
        beyond,
        numbers: byMonth.map(dimensionNumber),
        labelled: [dimensionNumber('app'), dimensionNumber('place')],
      },
      type: QueryTypes.SELECT,
    },
  )
  return rows.map(({ dimension, downloads, ...row }) => ({
    ...row,
    dimension: dimensions[dimension]!,
    downloads: Number(downloads),
  }))
}

/** Of one episode what is told apart is kept together, and summed up here by each. */
async function sumsOfEpisode(database: Sequelize, asked: Asked & { episode: string }): Promise<Sum[]> {
  const by = async (dimension: 'app' | 'device' | 'place' | 'source'): Promise<Sum[]> => {
    const rows = await database.query<{ label: number; text: string | null; downloads: string | number }>(
      `SELECT s.label, l.text, s.downloads FROM (
          SELECT ${dimension} AS label, SUM(downloads) AS downloads FROM download_traits
            WHERE show_id = :showId AND episode_id = :episode AND day BETWEEN :from AND :to GROUP BY ${dimension} HAVING downloads > 0
        ) s LEFT JOIN labels l ON l.id = s.label`,
      { replacements: { ...asked }, type: QueryTypes.SELECT },
    )
    return rows.map(({ downloads, ...row }) => ({ ...row, dimension, downloads: Number(downloads) }))
  }
  const refused = await database.query<{ label: number; downloads: string | number }>(
    `SELECT label, SUM(downloads) AS downloads FROM download_sums WHERE show_id = :showId AND dimension = :refusal
      AND episode_id = :episode AND day BETWEEN :from AND :to GROUP BY label HAVING downloads > 0`,
    { replacements: { ...asked, refusal: dimensionNumber('refusal') }, type: QueryTypes.SELECT },
  )
  const sums = await Promise.all([by('app'), by('device'), by('place'), by('source')])
  return [
    ...sums.flat(),
    ...refused.map(({ label, downloads }) => ({
      dimension: 'refusal' as const,
      label,
      text: null,
      downloads: Number(downloads),
    })),
  ]
}

/** Days on which there was something. */
async function daysOf(database: Sequelize, { episode, ...asked }: Asked): Promise<ShowNumbers['days']> {
  return database.query<{ day: string; downloads: number }>(
    `SELECT CAST(day AS CHAR) AS day, downloads FROM download_sums WHERE show_id = :showId AND dimension = :number
      AND episode_id = :of AND day BETWEEN :from AND :to AND downloads > 0 ORDER BY day`,
    {
      replacements: { ...asked, of: episode ?? allEpisodes, number: dimensionNumber('day') },
      type: QueryTypes.SELECT,
    },
  )
}

async function hoursOf(database: Sequelize, asked: Asked): Promise<{ at: Date; downloads: number }[]> {
  const rows = await database.query<{ day: string; label: number; downloads: number }>(
    `SELECT CAST(day AS CHAR) AS day, label, downloads FROM download_sums WHERE show_id = :showId AND dimension = :number
      AND episode_id = '${allEpisodes}' AND day BETWEEN :from AND :to AND downloads > 0`,
    { replacements: { ...asked, number: dimensionNumber('hour') }, type: QueryTypes.SELECT },
  )
  return rows.map(({ day, label, downloads }) => ({ at: new Date(Date.parse(day) + label * hourMs), downloads }))
}

function localHours(sums: readonly Sum[]): number[] {
  const week = Array.from({ length: weekHours }, () => 0)
  for (const { label, downloads } of sums) week[label]! += downloads
  return week
}

async function byEpisodeAge(database: Sequelize, asked: Asked): Promise<ShowNumbers['byEpisodeAge']> {
  const [row] = await database.query<{ recent: string | number | null; older: string | number | null }>(
    `SELECT SUM(IF(s.day < e.release_at + INTERVAL ${newDays} DAY, s.downloads, 0)) AS recent,
        SUM(IF(s.day < e.release_at + INTERVAL ${newDays} DAY, 0, s.downloads)) AS older
      FROM episodes e JOIN download_sums s ON s.show_id = e.show_id AND s.dimension = :number AND s.episode_id = e.id
        AND s.day BETWEEN :from AND :to
      WHERE e.show_id = :showId AND e.release_at IS NOT NULL`,
    { replacements: { ...asked, number: dimensionNumber('day') }, type: QueryTypes.SELECT },
  )
  return { recent: Number(row?.recent ?? 0), older: Number(row?.older ?? 0) }
}

/**
 * How many follow the feed: for how many programs say that they fetch it, and of the others each listener who fetched it that day. A
 * program that says so is not counted by its fetches.
 */
async function subscribers(database: Sequelize, asked: Asked): Promise<ShowNumbers['subscribers']> {
  const rows = await database.query<{ day: string; told: string | number; fetchers: string | number }>(
    `SELECT CAST(day AS CHAR) AS day, SUM(IF(dimension = :readers, downloads, 0)) AS told,
        SUM(IF(dimension = :fetchers, downloads, 0)) AS fetchers
      FROM download_sums WHERE show_id = :showId AND dimension IN (:readers, :fetchers) AND episode_id = '${allEpisodes}'
        AND day BETWEEN :from AND :to GROUP BY day ORDER BY day`,
    {
      replacements: {
        ...asked,
        readers: dimensionNumber('feed-readers'),
        fetchers: dimensionNumber('feed-fetchers'),
      },
      type: QueryTypes.SELECT,
    },
  )
  return rows.map(({ day, told, fetchers }) => ({ day, told: Number(told), fetchers: Number(fetchers) }))
}
