import { DateTime } from 'luxon'

/** What a date and time on the wall of a zone comes to. */
export type LocalMoment =
  | { kind: 'moment'; at: Date }
  /** The clock shows this time twice; `at` is the first of the two. */
  | { kind: 'twice'; at: Date; second: Date }
  /** The clock jumps over this time; `next` is the first wall time after the jump. */
  | { kind: 'skipped'; next: string }
  | { kind: 'unreadable' }

/** Nothing that apps can fetch went out earlier. */
export const earliestRelease = new Date('2000-01-01T00:00:00Z')

const wallFormat = "yyyy-MM-dd'T'HH:mm"

/**
 * Reads a wall time such as `2026-03-29T02:30` (to the minute, seconds allowed) in an IANA zone.
 * Says so where the change of clock skips it or shows it twice.
 */
export function readLocalMoment(local: string, zone: string): LocalMoment {
  if (!/^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d{1,3})?)?$/.test(local)) return { kind: 'unreadable' }
  const meant = DateTime.fromISO(local, { zone })
  if (!meant.isValid) return { kind: 'unreadable' }
  if (meant.toFormat(wallFormat) !== local.slice(0, 16)) return { kind: 'skipped', next: firstWallTimeAfterJump(meant) }
  const [first, second] = meant
    .getPossibleOffsets()
    .map(each => each.toJSDate())
    .sort((a, b) => +a - +b)
  return second ? { kind: 'twice', at: first!, second } : { kind: 'moment', at: first! }
}

/** A moment as the wall clock of a zone shows it, to the minute: `2026-12-03T06:00`. */
export function wallTime(at: Date, zone: string): string {
  return DateTime.fromJSDate(at, { zone }).toFormat(wallFormat)
}

/** A moment in words by the wall clock of a zone: `Tue 1 Dec 2026, 00:05`. */
export const dateWords = (at: Date, zone: string): string =>
  DateTime.fromJSDate(at, { zone }).setLocale('en-GB').toFormat('ccc d LLL yyyy, HH:mm')

/** Luxon moves a skipped time on by the width of the jump, so the jump itself lies at most that far back. */
function firstWallTimeAfterJump(moved: DateTime): string {
  let minute = moved.startOf('minute')
  while (minute.minus({ minutes: 1 }).offset === minute.offset) minute = minute.minus({ minutes: 1 })
  return minute.toFormat(wallFormat)
}
