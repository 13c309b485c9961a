import type { Connection } from 'mariadb'
import { DatabaseError, type Transaction } from 'sequelize'

/** So many rows go to the database at once. */
const rowsAtOnce = 2_000

/** What a row is given as: moments as the database writes them, identifiers as text. */
export type BulkValue = string | number | boolean | Buffer | null

/**
 * Carries out a statement for each of some rows, as the bulk protocol of MariaDB does it: as values, not as text that is written
 * here to be read there, which takes twice as long. What comes next is made while the database is at what came before.
 */
export async function bulk<Row>(
  transaction: Transaction,
  statement: string,
  rows: readonly Row[],
  valuesOf: (row: Row) => BulkValue[],
): Promise<void> {
  const { connection } = transaction as unknown as { connection: Connection }
  let before: Promise<unknown> = Promise.resolve()
  for (let from = 0; from < rows.length; from += rowsAtOnce) {
    const values = rows.slice(from, from + rowsAtOnce).map(valuesOf)
    await before
    before = connection.batch(statement, values).catch((error: Error) => {
      throw new DatabaseError(error as ConstructorParameters<typeof DatabaseError>[0])
    })
    // It is awaited with the next one, which may come later than its failure.
    before.catch(() => undefined)
  }
  await before
}
