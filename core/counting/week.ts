import { IANAZone } from 'luxon'

export const weekHours = 7 * 24

/** Downloads by the hour of the week in a zone, 0 on Monday at midnight to 167, from what they were by the UTC hour. */
export function hoursOfWeek(hours: readonly { at: Date; downloads: number }[], zone: string): number[] {
  const clock = IANAZone.create(zone)
  const week = Array.from({ length: weekHours }, () => 0)
  for (const { at, downloads } of hours) {
    const local = new Date(+at + clock.offset(+at) * 60_000)
    // Sunday is 0 for the language, and the last of the week here.
    week[((local.getUTCDay() + 6) % 7) * 24 + local.getUTCHours()]! += downloads
  }
  return week
}
