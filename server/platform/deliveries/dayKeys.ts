import { randomBytes } from 'node:crypto'
import { QueryTypes, type Sequelize } from 'sequelize'
import { dayOf } from '@core/counting/count'
import type { Clock } from '../clock'

/** Of the days that are being noted, and of some of a log that is brought in. */
const mostKept = 64
/** A key is deleted so long after it was made, everywhere: from then on nobody can tell who a listener was. */
export const keyLifeMs = 2 * 24 * 3600_000

/** The keys under which listeners are noted, one for each day (UTC), shared by all processes through the database. */
export function dayKeys(database: Sequelize, clock: Clock) {
  const kept = new Map<string, { secret: Buffer; until: number }>()

  /** Where it is known here; undefined where it must be asked for. */
  function atHand(day: string): Buffer | undefined {
    const key = kept.get(day)
    if (key && key.until > +clock.now()) return key.secret
    kept.delete(day)
    return undefined
  }

  async function load(day: string): Promise<Buffer> {
    await database.query('INSERT IGNORE INTO day_keys (day, secret, made_at) VALUES (?, ?, ?)', {
      replacements: [day, randomBytes(32), clock.now()],
    })
    const [row] = await database.query<{ secret: Buffer; madeAt: Date }>(
      'SELECT secret, made_at AS madeAt FROM day_keys WHERE day = ?',
      { replacements: [day], type: QueryTypes.SELECT },
    )
    if (kept.size >= mostKept) kept.clear()
    kept.set(day, { secret: row!.secret, until: +row!.madeAt + keyLifeMs })
    return row!.secret
  }

  return {
    atHand: (at: Date): Buffer | undefined => atHand(dayOf(at)),
    of: async (at: Date): Promise<Buffer> => atHand(dayOf(at)) ?? load(dayOf(at)),
  }
}
export type DayKeys = ReturnType<typeof dayKeys>
