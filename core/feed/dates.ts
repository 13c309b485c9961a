import { DateTime } from 'luxon'

/**
 * A moment as RSS wants it: RFC 5322 section 3.3 with a numeric zone, always UTC,
 * for example `Thu, 03 Dec 2026 05:00:00 +0000`.
 */
export function feedDate(moment: Date): string {
  return moment.toUTCString().replace('GMT', '+0000')
}

// RFC 9110 section 5.6.7: one form that is sent, and two obsolete ones that a recipient MUST still read.
const httpDates = ["EEE, dd MMM yyyy HH:mm:ss 'GMT'", "EEEE, dd-MMM-yy HH:mm:ss 'GMT'", 'EEE MMM d HH:mm:ss yyyy']

/** Reads an HTTP-date, in milliseconds since 1970; null where the text is none. */
export function readHttpDate(text: string): number | null {
  for (const format of httpDates) {
    const read = DateTime.fromFormat(text.replace(/ {2}(?=\d )/, ' '), format, { zone: 'utc', locale: 'en-US' })
    // "Recipients of a timestamp value in rfc850-date format, which uses a two-digit year, MUST interpret a timestamp that
    // appears to be more than 50 years in the future as representing the most recent year in the past"; luxon turns at 60.
    if (read.isValid) return read.toMillis()
  }
  return null
}

/**
 * When a content counts as changed that was changed at a moment: at the end of that second, so that no two contents
 * that were sent share a date, however quickly they followed each other. Dates are told to the second.
 */
export const settledAt = (changedAt: Date): Date => new Date(Math.floor(+changedAt / 1000) * 1000 + 1000)
