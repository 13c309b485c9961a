/**
 * SQL of plain values, for rows by the ten thousand: the library's own way of putting values into a statement looks at each letter of
 * it. Identifiers, dates, times. Throws where one has other letters.
 */
export function sqlPlain(text: string): string {
  if (!/^[\w :.-]*$/.test(text)) throw new Error(`${JSON.stringify(text)} is no plain value.`)
  return `'${text}'`
}

/** JSON of numbers and identifiers. Throws where it has other letters. */
export function sqlJson(text: string): string {
  if (!/^[\w\-[\]{}:",\n]*$/.test(text)) throw new Error(`${JSON.stringify(text)} is no plain JSON.`)
  return `'${text}'`
}

/** A moment as DATETIME(3) takes it. */
export const sqlTime = (at: Date): string => sqlPlain(at.toISOString().slice(0, 23).replace('T', ' '))

/** As many rows as go into one statement. */
export const rowsAtOnce = 1_000

/** Rows in parts that go into one statement each. */
export function* inParts<Row>(rows: readonly Row[]): Generator<Row[]> {
  for (let from = 0; from < rows.length; from += rowsAtOnce) yield rows.slice(from, from + rowsAtOnce)
}

/** Does a statement for each part of some rows, one after the other; the next is written while the one before is carried out. */
export async function eachPart<Row>(
  rows: readonly Row[],
  statementOf: (part: readonly Row[]) => string,
  carryOut: (statement: string) => Promise<unknown>,
): Promise<void> {
  let before: Promise<unknown> = Promise.resolve()
  for (const part of inParts(rows)) {
    const statement = statementOf(part)
    await before
    before = carryOut(statement)
    // It is awaited with the next one, which may come later than its failure.
    before.catch(() => undefined)
  }
  await before
}
