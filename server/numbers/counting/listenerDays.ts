import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import {
  dayOf,
  type Fetch,
  type ListenerDay,
  listenerDayKey,
  type ListenerDays,
  refusals,
  sources,
} from '@core/counting/count'
import { devices } from '@core/counting/programs'
import { type BulkValue, bulk } from '../../platform/database/bulk'
import { inParts, sqlPlain, timeOf } from './literals'

/** Of one listener so many fetches of an episode are kept for a day; of further ones only that there were. */
export const mostFetchesKept = 100

/**
 * A fetch as it is kept, in numbers: the millisecond of the day (UTC), the status (below 0 for HEAD), what was asked for (from and to,
 * both included, -1 for the whole), the bytes that were sent (-1 where that is not known), and how many such there were.
 */
export type KeptFetch = [atMs: number, status: number, start: number, end: number, bytesSent: number, times: number]

const dayMs = 24 * 3600_000
/** A line of JSON, which is a {@link KeptFetch}. */
export const keptFetch = ({ at, method, status, range, bytesSent, times }: Fetch): string =>
  `[${+at % dayMs},${method === 'HEAD' ? -status : status},${range ? range[0] : -1},${range ? range[1] : -1},${bytesSent ?? -1},${times}]\n`

/** Of what is kept for a day, who it is: not more than is needed to ask for it. */
export type Asked = Pick<ListenerDay, 'showId' | 'episodeId' | 'day' | 'who'>

interface Row {
  showId: string
  day: string
  episodeId: string
  who: string
  firstAt: Date
  lastAt: Date
  fetches: number
  refusal: number | null
  app: string
  device: number
  place: string | null
  source: number
  spans: Buffer
}

/** What some listeners fetched so far. */
export async function readListenerDays(
  database: Sequelize,
  asked: readonly Asked[],
  transaction: Transaction,
): Promise<ListenerDays> {
  const days = new Map<string, ListenerDay>()
  for (const part of inParts(asked)) {
    const keys = part.map(
      ({ showId, day, episodeId, who }) => `(${sqlPlain(showId)}, ${sqlPlain(day)}, ${sqlPlain(episodeId)}, x'${who}')`,
    )
    const rows = await database.query<Row>(
      `SELECT d.show_id AS showId, CAST(d.day AS CHAR) AS day, d.episode_id AS episodeId, LOWER(HEX(d.who)) AS who,
        d.first_at AS firstAt, d.last_at AS lastAt, d.fetches, d.refusal, a.text AS app, d.device, p.text AS place, d.source, d.spans
        FROM listener_days d JOIN labels a ON a.id = d.app LEFT JOIN labels p ON p.id = d.place
        WHERE (d.show_id, d.day, d.episode_id, d.who) IN (${keys.join(', ')})`,
      { type: QueryTypes.SELECT, transaction },
    )
    for (const { app, device, place, source, spans, refusal, ...row } of rows) {
      const day: ListenerDay = {
        ...row,
        spans: JSON.parse(spans.toString()) as ListenerDay['spans'],
        refusal: refusal === null ? null : refusals[refusal]!,
        traits: { app, device: devices[device]!, place, source: sources[source]! },
      }
      days.set(listenerDayKey(day), day)
    }
  }
  return days
}

/** What is written of a listener's day; of the fetches that are kept those that are new, a line for each. */
export interface Told {
  day: ListenerDay
  isCoarse: boolean
  kept: string
}

const columns =
  'show_id, day, episode_id, who, first_at, last_at, fetches, refusal, app, device, place, source, is_coarse, spans, fetches_kept'

/** Writes down what listeners have fetched by now. */
export function writeListenerDays(
  days: readonly Told[],
  labelOf: (text: string) => number,
  transaction: Transaction,
): Promise<void> {
  // In the order of the key, so that what lies side by side is written side by side.
  const rows = days
    .map(told => ({ told, key: `${told.day.showId} ${told.day.day} ${told.day.episodeId} ${told.day.who}` }))
    .toSorted((one, other) => (one.key < other.key ? -1 : 1))
  return bulk(
    transaction,
    `INSERT INTO listener_days (${columns}) VALUES (${columns.replaceAll(/\w+/g, '?')})
      ON DUPLICATE KEY UPDATE first_at = VALUE(first_at), last_at = VALUE(last_at), fetches = VALUE(fetches),
      refusal = VALUE(refusal), app = VALUE(app), device = VALUE(device), place = VALUE(place), source = VALUE(source),
      spans = VALUE(spans), fetches_kept = CONCAT(fetches_kept, VALUE(fetches_kept))`,
    rows,
    ({ told }) => valuesOf(told, labelOf),
  )
}

const valuesOf = (
  { day: { showId, day, episodeId, who, firstAt, lastAt, fetches, refusal, traits, spans }, isCoarse, kept }: Told,
  labelOf: (text: string) => number,
): BulkValue[] => [
  showId,
  day,
  episodeId,
  Buffer.from(who, 'hex'),
  timeOf(firstAt),
  timeOf(lastAt),
  fetches,
  refusal === null ? null : refusals.indexOf(refusal),
  labelOf(traits.app),
  devices.indexOf(traits.device),
  traits.place === null ? null : labelOf(traits.place),
  sources.indexOf(traits.source),
  isCoarse,
  JSON.stringify(spans),
  kept,
]

export const askedOf = ({ showId, episodeId, at, who }: Fetch): Asked => ({ showId, episodeId, day: dayOf(at), who })
