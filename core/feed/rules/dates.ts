import { DateTime } from 'luxon'

/** A date of RFC 5322 section 3.3, with what is odd about it; null where it is none. */
export interface FeedDate {
  at: Date
  /** Whether the day of the week is that of the date, or is not told. */
  weekdayFits: boolean
  /** Whether the zone is told by a name, as RFC 822 did. */
  hasNamedZone: boolean
}

const shape =
  /^(?:(Mon|Tue|Wed|Thu|Fri|Sat|Sun), ?)?(\d{1,2} (?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) \d{4} \d{2}:\d{2}(?::\d{2})?) ([+-]\d{4}|[A-Z]{1,3})$/

export function readDate(text: string): FeedDate | null {
  const [, weekday, moment, zone] = shape.exec(text) ?? []
  if (!moment || !zone) return null
  const read = DateTime.fromRFC2822(`${moment} ${zone}`, { setZone: true })
  if (!read.isValid) return null
  return {
    at: read.toJSDate(),
    weekdayFits: weekday === undefined || read.setLocale('en').toFormat('ccc') === weekday,
    hasNamedZone: !/^[+-]/.test(zone),
  }
}
