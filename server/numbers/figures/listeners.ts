import { QueryTypes } from 'sequelize'
import type { ListenerList, ListenerQuery } from '@contract/numbers'
import { refusals, sources } from '@core/counting/count'
import { devices } from '@core/counting/programs'
import { coveredBytes, type Span } from '@core/counting/spans'
import { badInput } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { transact } from '../../platform/database/transact'
import { fileSounds } from '../counting/fileSounds'
import type { KeptFetch } from '../counting/listenerDays'

const pageSize = 50

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
  { from, to, episode, what, app, device, source, after }: ListenerQuery,
): Promise<ListenerList> {
  const last = after === undefined ? null : placeOf(after)
  const where = [
    'd.show_id = :showId',
    ...(from ? ['d.day >= :from'] : []),
    ...(to ? ['d.day <= :to'] : []),
    ...(episode ? ['d.episode_id = :episode'] : []),
    what === 'downloads' ? 'd.refusal IS NULL' : 'd.refusal = :refusal',
    ...(app === undefined ? [] : ['d.app = (SELECT id FROM labels WHERE text = :app)']),
    ...(device === undefined ? [] : ['d.device = :device']),
    ...(source === undefined ? [] : ['d.source = :source']),
  ]
  const replacements = {
    showId,
    from,
    to,
    episode,
    refusal: what === 'downloads' ? null : refusals.indexOf(what),
    app,
    device: device && devices.indexOf(device),
    source: source && sources.indexOf(source),
    ...last,
  }
  const [kept] = await database.query<{ since: string | null }>(
    'SELECT CAST(MIN(day) AS CHAR) AS since FROM listener_days WHERE show_id = ?',
    { replacements: [showId], type: QueryTypes.SELECT },
  )
  const [counted] = await database.query<{ total: number | bigint }>(
    `SELECT COUNT(*) AS total FROM listener_days d WHERE ${where.join(' AND ')}`,
    { replacements, type: QueryTypes.SELECT },
  )
  // The newest day first, and within it in the order of the key.
  const beyond = last
    ? [
        '(d.day < :lastDay OR (d.day = :lastDay AND (d.episode_id > :lastEpisode OR (d.episode_id = :lastEpisode AND d.who > UNHEX(:lastWho)))))',
      ]
    : []
  const rows = await database.query<Row>(
    `SELECT LOWER(HEX(d.who)) AS who, CAST(d.day AS CHAR) AS day, d.episode_id AS episodeId, COALESCE(e.title, '') AS title, l.text AS app,
        d.device, d.source, d.first_at AS firstAt, d.last_at AS lastAt, d.fetches, d.refusal, d.spans, d.fetches_kept AS kept
      FROM listener_days d JOIN labels l ON l.id = d.app LEFT JOIN episodes e ON e.id = d.episode_id
      WHERE ${[...where, ...beyond].join(' AND ')} ORDER BY d.day DESC, d.episode_id, d.who LIMIT ${pageSize + 1}`,
    { replacements, type: QueryTypes.SELECT },
  )
  const page = rows.slice(0, pageSize)
  const spans = page.map(row => JSON.parse(row.spans.toString()) as Record<string, readonly Span[]>)
  const soundOf = await transact(database, transaction =>
    fileSounds(database)(
      spans.flatMap(each => Object.keys(each)),
      transaction,
    ),
  )
  return {
    total: Number(counted!.total),
    keptSince: kept?.since ?? null,
    listeners: page.map(({ who, kept, spans: _, refusal, ...row }, n) => ({
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
    next: rows.length > pageSize ? keyOfRow(page.at(-1)!) : null,
  }
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
