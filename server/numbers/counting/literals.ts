/**
 * SQL of plain values, for rows by the ten thousand: the library's own way of putting values into a statement looks at each letter of
 * it. Identifiers, dates, times. Throws where one has other letters.
 */
export function sqlPlain(text: string): string {
  if (!/^[\w :.-]*$/.test(text)) throw new Error(`${JSON.stringify(text)} is no plain value.`)
  return `'${text}'`
}

/** A moment as DATETIME(3) takes it. */
export const timeOf = (at: Date): string => at.toISOString().slice(0, 23).replace('T', ' ')

/** As many rows as go into one statement. */
export const rowsAtOnce = 1_000

/** Rows in parts that go into one statement each. */
export function* inParts<Row>(rows: readonly Row[]): Generator<Row[]> {
  for (let from = 0; from < rows.length; from += rowsAtOnce) yield rows.slice(from, from + rowsAtOnce)
}
