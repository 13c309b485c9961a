import { QueryTypes, type Transaction } from 'sequelize'
import type { LogLine } from '@core/counting/logs/line'
import type { DeliveryEntry } from '../../platform/deliveries/lines'
import type { Platform } from '../../platform/platform'
import { sourceIn } from './source'

/** What is noted of an episode's audio stands at `/media/{episode}/{name}`, and for a listener of their own behind `/_{secret}`. */
const mediaPath =
  /^(\/_[\w-]+)?\/media\/([\da-f]{8}(?:-[\da-f]{4}){3}-[\da-f]{12})\/([\da-f]{16})\.\w+(?:\?from=(\w+))?/

/** Entries of the log of deliveries from what somebody else noted; lines about anything but audio are left out. */
export async function logEntries(
  { database, askers }: Pick<Platform, 'database' | 'askers'>,
  lines: readonly LogLine[],
  transaction: Transaction,
): Promise<DeliveryEntry[]> {
  const asked = lines.flatMap(line => {
    const [, secret, episodeId, file, from] = mediaPath.exec(line.path) ?? []
    return episodeId && file && isMethod(line.method)
      ? [{ line, method: line.method, episodeId, file, source: secret ? ('private' as const) : sourceIn(from) }]
      : []
  })
  const showOf = await showsOf(new Set(asked.map(({ episodeId }) => episodeId)))
  const fileOf = await filesOf(new Set(showOf.values()), new Set(asked.map(({ file }) => file)))
  const entries: DeliveryEntry[] = []
  for (const { line, method, episodeId, file, source } of asked) {
    const showId = showOf.get(episodeId)
    if (!showId) continue
    const { at, status, bytesSent, range, agent, address } = line
    entries.push(
      await askers.told({
        at,
        kind: 'media',
        showId,
        episodeId,
        fileId: fileOf.get(`${showId} ${file}`) ?? null,
        method,
        status,
        bytesSent,
        range,
        agent,
        address,
        source,
        isPrefetch: false,
        times: 1,
      }),
    )
  }
  return entries

  async function showsOf(ids: ReadonlySet<string>): Promise<Map<string, string>> {
    if (ids.size === 0) return new Map()
    const rows = await database.query<{ id: string; showId: string }>(
      'SELECT id, show_id AS showId FROM episodes WHERE id IN (?)',
      { replacements: [[...ids]], type: QueryTypes.SELECT, transaction },
    )
    return new Map(rows.map(({ id, showId }) => [id, showId]))
  }

  async function filesOf(shows: ReadonlySet<string>, names: ReadonlySet<string>): Promise<Map<string, string>> {
    if (shows.size === 0) return new Map()
    const rows = await database.query<{ id: string; showId: string; name: string }>(
      'SELECT id, show_id AS showId, LEFT(fingerprint, 16) AS name FROM files WHERE show_id IN (?) AND LEFT(fingerprint, 16) IN (?)',
      { replacements: [[...shows], [...names]], type: QueryTypes.SELECT, transaction },
    )
    return new Map(rows.map(({ id, showId, name }) => [`${showId} ${name}`, id]))
  }
}

/** HEAD delivers nothing, and is noted; what else there may be is no matter of ours. */
const isMethod = (method: string): method is 'GET' | 'HEAD' => method === 'GET' || method === 'HEAD'
