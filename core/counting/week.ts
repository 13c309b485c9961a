import { IANAZone } from 'luxon'

export const weekHours = 7 * 24
const dayMs = 24 * 3600_000

/** Downloads by the hour of the week in a zone, 0 on Monday at midnight to 167, from what they were by the UTC hour. */
export function hoursOfWeek(hours: readonly { at: Date; downloads: number }[], zone: string): number[] {
  const offsetAt = offsetsIn(zone)
  const week = Array.from({ length: weekHours }, () => 0)
  for (const { at, downloads } of hours) {
    const local = new Date(+at + offsetAt(+at) * 60_000)
    // Sunday is 0 for the language, and the last of the week here.
    week[((local.getUTCDay() + 6) % 7) * 24 + local.getUTCHours()]! += downloads
  }
  return week
}

/** Minutes that a zone is ahead of UTC; looked up for single moments only on days on which its clocks change. */
function offsetsIn(zone: string): (at: number) => number {
  const clock = IANAZone.create(zone)
  const starts = new Map<number, number>()
  const atStart = (day: number): number => {
    const known = starts.get(day) ?? clock.offset(day * dayMs)
    starts.set(day, known)
    return known
  }
  return at => {
    const day = Math.floor(at / dayMs)
    const offset = atStart(day)
    return offset === atStart(day + 1) ? offset : clock.offset(at)
  }
}
