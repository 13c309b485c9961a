import { LRUCache } from 'lru-cache'
import { QueryTypes, type Sequelize } from 'sequelize'
import type { FileSound } from '@core/counting/count'

interface Row {
  id: string
  bytes: number | bigint
  durationMs: number
  bitRateBps: number
  fromBytes: number | bigint | null
  toBytes: number | bigint | null
}

/** Where the sound lies in files of episodes: they never change, so each is asked for once. */
export function fileSounds(database: Sequelize) {
  const known = new LRUCache<string, FileSound>({ max: 20_000 })
  return async (ids: Iterable<string>): Promise<(id: string) => FileSound | undefined> => {
    const missing = [...new Set(ids)].filter(id => !known.has(id))
    const found = new Map<string, FileSound>()
    const rows =
      missing.length === 0
        ? []
        : await database.query<Row>(
            `SELECT id, bytes, duration_ms AS durationMs, bit_rate_bps AS bitRateBps, sound_from_bytes AS fromBytes,
              sound_to_bytes AS toBytes FROM files WHERE id IN (?)`,
            { replacements: [missing], type: QueryTypes.SELECT },
          )
    for (const row of rows) {
      const sound = soundIn(row)
      found.set(row.id, sound)
      known.set(row.id, sound)
    }
    return id => found.get(id) ?? known.get(id)
  }
}

/** The frames where they were read; else as many bytes as its bit rate makes of its length, at the end of the file. */
function soundIn({ bytes, durationMs, bitRateBps, fromBytes, toBytes }: Row): FileSound {
  const whole = Number(bytes)
  const [from, to] =
    fromBytes !== null && toBytes !== null
      ? [Number(fromBytes), Number(toBytes)]
      : [Math.max(0, whole - Math.ceil((bitRateBps / 8) * (durationMs / 1000))), whole]
  return { audio: [from, to - 1], minuteBytes: Math.ceil(((to - from) * 60_000) / Math.max(1, durationMs)) }
}
