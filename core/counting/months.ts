import { DateTime } from 'luxon'

/**
 * The months that lie whole between two days, both included, and before a further one: the first day of the first of them, and of the
 * month after the last. Both are the first of the two days where there is none.
 */
export function wholeMonths(from: string, to: string, until: string | null): { first: string; beyond: string } {
  const utc = (day: string): DateTime => DateTime.fromISO(day, { zone: 'utc' })
  const first = utc(from).plus({ months: 1 }).minus({ days: 1 }).startOf('month').toISODate()!
  const last = utc(to).plus({ days: 1 }).startOf('month').toISODate()!
  const beyond = until !== null && until < last ? until : last
  return until !== null && first < beyond ? { first, beyond } : { first: from, beyond: from }
}
