import { QueryTypes, type Sequelize } from 'sequelize'
import type { ListenerList, ListenerQuery } from '@contract/numbers'
import { refusals, sources } from '@core/counting/count'
import type { Dimension } from '@core/counting/dimensions'
import { devices } from '@core/counting/programs'
import { coveredBytes, type Span } from '@core/counting/spans'
import { badInput } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { fileSounds } from '../counting/fileSounds'
import type { KeptFetch } from '../counting/listenerDays'
import { allEpisodes, dimensionNumber } from '../counting/sums'

const pageSize = 50
/** Of a show with many listeners so many rows are read for one page, or one day. */
const mostReadAtOnce = 60_000
/** Before every listener. */
const nobody = '0'.repeat(16)

interface Row {
  who: string
  day: string
  episodeId: string
  title: string
  app: string
  device: number
  source: number
  firstAt: Date
  lastAt: Date
  fetches: number
  refusal: number | null
  spans: Buffer
  kept: Buffer
}

/** What a figure was made from: a row for each listener, episode and day, with its fetches; where it was is not told of a single one. */
export async function listenersBehind(
  { database }: Pick<Platform, 'database'>,
  showId: string,
  query: ListenerQuery,
  mostRead = mostReadAtOnce,
): Promise<ListenerList> {
  const keptSince = await firstDayKept(database, showId)
  const days = keptSince === null ? [] : await daysBehind(database, showId, query, keptSince)
  const { rows, next } = await rowsOf(database, showId, query, days, mostRead)
  const spans = rows.map(row => JSON.parse(row.spans.toString()) as Record<string, readonly Span[]>)
  const soundOf = await fileSounds(database)(spans.flatMap(each => Object.keys(each)))
  return {
    total: days.reduce((sum, { wanted }) => sum + wanted, 0),
    keptSince,
    listeners: rows.map(({ who, kept, spans: _, refusal, ...row }, n) => ({
      ...row,
      key: `${row.day} ${row.episodeId} ${who}`,
      device: devices[row.device]!,
      source: sources[row.source]!,
      firstAt: row.firstAt.toISOString(),
      lastAt: row.lastAt.toISOString(),
      refusal: refusal === null ? null : refusals[refusal]!,
      seconds: secondsOf(spans[n]!, soundOf),
      lines: linesOf(kept, row.day),
    })),
    next,
  }
}

async function firstDayKept(database: Sequelize, showId: string): Promise<string | null> {
  const [kept] = await database.query<{ since: string | null }>(
    'SELECT CAST(MIN(day) AS CHAR) AS since FROM listener_days WHERE show_id = ?',
    { replacements: [showId], type: QueryTypes.SELECT },
  )
  return kept?.since ?? null
}

/** A day on which there is something to be found: how much of it, and how many rows of listeners there are in all. */
interface DayBehind {
  day: string
  wanted: number
  many: number
}

/** The days to look at, the newest first: the sums tell on which there is what, so that no other is read. */
async function daysBehind(
  database: Sequelize,
  showId: string,
  { from, to, episode, what, app, device, source }: ListenerQuery,
  keptSince: string,
): Promise<DayBehind[]> {
  const traits = {
    ...(app === undefined ? {} : { app: '(SELECT id FROM labels WHERE text = :app)' }),
    ...(device === undefined ? {} : { device: ':device' }),
    ...(source === undefined ? {} : { source: ':source' }),
  }
  const [[dimension, label] = ['day', '0'], ...others] = Object.entries(traits)
  if (what !== 'downloads' && Object.keys(traits).length > 0)
    throw badInput('what', what, 'What did not count is told by its reason and its episode only.')
  if (others.length > 0 && !episode)
    throw badInput(others[0]![0], others[0]![0] === 'device' ? device : source, 'With another one only for an episode.')
  const within = 'show_id = :showId AND day BETWEEN :from AND :to AND episode_id = :of'
  const found =
    what !== 'downloads'
      ? `SELECT day, downloads FROM download_sums WHERE ${within} AND dimension = :refused AND label = :refusal`
      : episode
        ? `SELECT day, SUM(downloads) AS downloads FROM download_traits WHERE ${within}${Object.entries(traits)
            .map(([column, value]) => ` AND ${column} = ${value}`)
            .join('')} GROUP BY day`
        : `SELECT day, downloads FROM download_sums WHERE ${within} AND dimension = :dimension AND label = ${label}`
  const days = await database.query<{ day: string; wanted: string | number; many: string | number }>(
    `SELECT CAST(f.day AS CHAR) AS day, f.downloads AS wanted, a.downloads AS many FROM (${found}) f
      JOIN (SELECT day, SUM(downloads) AS downloads FROM download_sums WHERE ${within} AND dimension IN (:all) GROUP BY day) a ON a.day = f.day
      WHERE f.downloads > 0 ORDER BY f.day DESC`,
    {
      replacements: {
        showId,
        of: episode ?? allEpisodes,
        from: from !== undefined && from > keptSince ? from : keptSince,
        to: to ?? '9999-12-31',
        app,
        device: device && devices.indexOf(device),
        source: source && sources.indexOf(source),
        dimension: dimensionNumber(dimension as Dimension),
        refused: dimensionNumber('refusal'),
        refusal: what === 'downloads' ? null : refusals.indexOf(what),
        all: [dimensionNumber('day'), dimensionNumber('refusal')],
      },
      type: QueryTypes.SELECT,
    },
  )
  return days.map(({ day, ...of }) => ({ day, wanted: Number(of.wanted), many: Number(of.many) }))
}

/** A page of rows, day by day; it ends early where more would have to be read than is answered at once. */
async function rowsOf(
  database: Sequelize,
  showId: string,
  { episode, what, app, device, source, after }: ListenerQuery,
  days: readonly DayBehind[],
  mostRead: number,
): Promise<{ rows: Row[]; next: string | null }> {
  const last = after === undefined ? null : placeOf(after)
  const where = [
    'show_id = :showId AND day = :day',
    'refusal <=> :refusal',
    ...(episode ? ['episode_id = :episode'] : []),
    ...(app === undefined ? [] : ['app = (SELECT id FROM labels WHERE text = :app)']),
    ...(device === undefined ? [] : ['device = :device']),
    ...(source === undefined ? [] : ['source = :source']),
  ]
  const beyond = '(episode_id > :lastEpisode OR (episode_id = :lastEpisode AND who > UNHEX(:lastWho)))'
  const rows: Row[] = []
  let read = 0
  for (const { day, many } of days) {
    if (last && day > last.lastDay) continue
    if (read > 0 && read + many > mostRead) return { rows, next: `${day} ${allEpisodes} ${nobody}` }
    read += many
    const isWithin = day === last?.lastDay
    const found = await database.query<Row>(
      `SELECT LOWER(HEX(d.who)) AS who, CAST(d.day AS CHAR) AS day, d.episode_id AS episodeId, COALESCE(e.title, '') AS title, l.text AS app,
          d.device, d.source, d.first_at AS firstAt, d.last_at AS lastAt, d.fetches, d.refusal, d.spans, d.fetches_kept AS kept
        FROM (SELECT * FROM listener_days WHERE ${[...where, ...(isWithin ? [beyond] : [])].join(' AND ')} ORDER BY episode_id, who LIMIT :most) d
        JOIN labels l ON l.id = d.app LEFT JOIN episodes e ON e.id = d.episode_id ORDER BY d.episode_id, d.who`,
      {
        replacements: {
          showId,
          day,
          episode,
          refusal: what === 'downloads' ? null : refusals.indexOf(what),
          app,
          device: device && devices.indexOf(device),
          source: source && sources.indexOf(source),
          most: pageSize + 1 - rows.length,
          ...last,
        },
        type: QueryTypes.SELECT,
      },
    )
    rows.push(...found)
    if (rows.length > pageSize) return { rows: rows.slice(0, pageSize), next: keyOfRow(rows[pageSize - 1]!) }
  }
  return { rows, next: null }
}

const keyOfRow = ({ day, episodeId, who }: Row): string => `${day} ${episodeId} ${who}`

function placeOf(after: string): { lastDay: string; lastEpisode: string; lastWho: string } {
  const [, lastDay, lastEpisode, lastWho] = /^(\d{4}-\d{2}-\d{2}) ([\da-f-]{36}) ([\da-f]{16})$/.exec(after) ?? []
  if (!lastDay || !lastEpisode || !lastWho)
    throw badInput('after', after, 'Where the page before ended, as it was told there.')
  return { lastDay, lastEpisode, lastWho }
}

/** How much of the sound was fetched, of the file of which it was most; null where nothing was. */
function secondsOf(
  spans: Record<string, readonly Span[]>,
  soundOf: ReturnType<Awaited<ReturnType<typeof fileSounds>>> extends Promise<infer Of> ? Of : never,
): number | null {
  const seconds = Object.entries(spans).flatMap(([fileId, of]) => {
    const sound = soundOf(fileId)
    return sound ? [(coveredBytes(of, sound.audio) / sound.minuteBytes) * 60] : []
  })
  return seconds.length > 0 ? Math.round(Math.max(...seconds)) : null
}

function linesOf(kept: Buffer, day: string): ListenerList['listeners'][number]['lines'] {
  const start = Date.parse(`${day}T00:00:00Z`)
  return kept
    .toString()
    .trimEnd()
    .split('\n')
    .filter(Boolean)
    .map(line => {
      const [atMs, status, first, last, bytesSent, times] = JSON.parse(line) as KeptFetch
      return {
        at: new Date(start + atMs).toISOString(),
        method: status < 0 ? 'HEAD' : 'GET',
        status: Math.abs(status),
        range: first < 0 ? null : ([first, last] as [number, number]),
        bytesSent: bytesSent < 0 ? null : bytesSent,
        times,
      }
    })
}
