import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import type { Clock } from '../../platform/clock'
import { repeat, type Repeated } from '../../platform/repeat'

/** A clock that runs as the world's does, ahead of it by as much as it was moved. */
export class OffsetClock implements Clock {
  offsetMs = 0

  now(): Date {
    return new Date(Date.now() + this.offsetMs)
  }
}

const everyMs = 250

export async function readOffset(database: Sequelize, transaction?: Transaction): Promise<number> {
  const [row] = await database.query<{ offsetMs: number | bigint }>(
    'SELECT offset_ms AS offsetMs FROM clock_offset WHERE id = 1',
    { type: QueryTypes.SELECT, transaction },
  )
  return Number(row?.offsetMs ?? 0)
}

/** Moves the clock of the house by so many ms from where it is. */
export async function moveClock(database: Sequelize, byMs: number, transaction?: Transaction): Promise<void> {
  await database.query(
    'INSERT INTO clock_offset (id, offset_ms) VALUES (1, :byMs) ON DUPLICATE KEY UPDATE offset_ms = offset_ms + :byMs',
    { replacements: { byMs }, transaction },
  )
}

/** Keeps the clock of this process with those of the others; it goes right from the beginning. */
export async function followClockOffset(
  clock: OffsetClock,
  database: Sequelize,
  report: (error: unknown) => void,
): Promise<Repeated> {
  const look = async (): Promise<void> => {
    clock.offsetMs = await readOffset(database)
  }
  await look()
  return repeat(everyMs, look, report)
}
