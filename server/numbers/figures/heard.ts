import { QueryTypes } from 'sequelize'
import type { Heard } from '@contract/numbers'
import { everyPart, heardByPart } from '@core/counting/heard'
import { fewestShown } from '@core/counting/shown'
import type { Platform } from '../../platform/platform'

/** How far those heard an episode who played it on a page, of the file that is out; null where they are too few to tell. */
export async function heard({ database }: Pick<Platform, 'database'>, episodeId: string): Promise<Heard | null> {
  const rows = await database.query<{ fileId: string; durationMs: number; part: number; listeners: number }>(
    `SELECT f.id AS fileId, f.duration_ms AS durationMs, h.part, h.listeners
      FROM episodes e JOIN episode_files l ON l.episode_id = e.id AND l.role = 'released' JOIN files f ON f.id = l.file_id
        JOIN heard_sums h ON h.show_id = e.show_id AND h.episode_id = e.id AND h.file_id = f.id
      WHERE e.id = ?`,
    { replacements: [episodeId], type: QueryTypes.SELECT },
  )
  const of = (part: number): number => rows.find(row => row.part === part)?.listeners ?? 0
  const listeners = of(everyPart)
  if (listeners < fewestShown) return null
  const [{ fileId, durationMs }] = rows as [(typeof rows)[number]]
  return { fileId, durationMs, listeners, parts: heardByPart(of) }
}
