import { DateTime } from 'luxon'
import { QueryTypes, type Sequelize } from 'sequelize'

/** The partition of what belongs to no month yet. */
export const unassigned = 'later'
/** Months ahead of now that have their partition before anything comes into it. */
const monthsAhead = 2

/** Months of a table are named by their beginning: `p202612` holds December of 2026, the first one also whatever is older. */
const partitionOf = (month: DateTime): string => `p${month.toFormat('yyyyMM')}`

async function monthsOf(database: Sequelize, table: string): Promise<string[]> {
  const rows = await database.query<{ name: string }>(
    `SELECT PARTITION_NAME AS name FROM information_schema.PARTITIONS
      WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = ? AND PARTITION_NAME <> '${unassigned}' ORDER BY PARTITION_NAME`,
    { replacements: [table], type: QueryTypes.SELECT },
  )
  return rows.map(({ name }) => name)
}

/** Gives this month and the next ones their partitions, and drops those that ended before a moment with all that is in them. */
export async function keepMonths(database: Sequelize, table: string, now: Date, dropBefore: Date): Promise<void> {
  const known = await monthsOf(database, table)
  const thisMonth = DateTime.fromJSDate(now, { zone: 'utc' }).startOf('month')
  const wanted = Array.from({ length: monthsAhead + 1 }, (_, n) => thisMonth.plus({ months: n })).filter(
    month => known.length === 0 || partitionOf(month) > known.at(-1)!,
  )
  if (wanted.length > 0) {
    const partitions = wanted.map(
      month => `PARTITION ${partitionOf(month)} VALUES LESS THAN ('${month.plus({ months: 1 }).toISODate()}')`,
    )
    await database.query(
      `ALTER TABLE ${table} REORGANIZE PARTITION ${unassigned} INTO (${partitions.join(', ')}, PARTITION ${unassigned} VALUES LESS THAN (MAXVALUE))`,
    )
  }
  const over = known.filter(
    name => DateTime.fromFormat(`${name} UTC`, "'p'yyyyMM z").plus({ months: 1 }).toJSDate() <= dropBefore,
  )
  if (over.length > 0) await database.query(`ALTER TABLE ${table} DROP PARTITION ${over.join(', ')}`)
}
