import { dayOf } from './count'

const hourMs = 3600_000
const dayMs = 24 * hourMs
/** So long downloads are known by the hour; from then on by whole days. */
export const firstHours = 72

/** How old an episode is, as far as its downloads can be told: by hours at first, by days that are over later. */
export type Age = { unit: 'hours'; many: number } | { unit: 'days'; many: number }

/**
 * The age at a moment: whole hours since the beginning of the hour of its release; from the fourth day on days (UTC), the one of its
 * release and those after it that are over.
 */
export function ageAt(releasedAt: Date, now: Date): Age {
  const hours = Math.max(0, Math.floor((+now - Math.floor(+releasedAt / hourMs) * hourMs) / hourMs))
  return hours < firstHours ? { unit: 'hours', many: hours } : { unit: 'days', many: daysBetween(releasedAt, now) }
}

/** How many days (UTC) lie between the day of one moment and that of another. */
export const daysBetween = (one: Date, other: Date): number => Math.floor(+other / dayMs) - Math.floor(+one / dayMs)

/** The day (UTC) so many days after the one of a moment. */
export const dayAfter = (at: Date, days: number): string => dayOf(new Date(+at + days * dayMs))

/** Running sums: what there was until the end of each step. */
export function running(steps: readonly number[]): number[] {
  let sum = 0
  return steps.map(each => (sum += each))
}
