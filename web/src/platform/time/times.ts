import { DateTime } from 'luxon'
import { t } from './messages'
import { locale } from '../messages'

type Moment = Date | string

const inZone = (at: Moment, zone: string): DateTime =>
  (typeof at === 'string' ? DateTime.fromISO(at, { zone }) : DateTime.fromJSDate(at, { zone })).setLocale(locale)

/** `14:05` */
export const timeOfDay = (at: Moment, zone: string): string => inZone(at, zone).toFormat('HH:mm')
/** `14:05:09` */
export const timeToTheSecond = (at: Moment, zone: string): string => inZone(at, zone).toFormat('HH:mm:ss')
/** `3 Dec 2026` */
export const shortDay = (at: Moment, zone: string): string => inZone(at, zone).toFormat('d LLL yyyy')
/** `Thu 3 Dec, 06:00` */
export const shortMoment = (at: Moment, zone: string): string => inZone(at, zone).toFormat('ccc d LLL, HH:mm')
/** `3 Dec` */
export const dayInYear = (at: Moment, zone: string): string => inZone(at, zone).toFormat('d LLL')
/** `3 Dec, 06:00:12` */
export const dayAndTime = (at: Moment, zone: string): string => inZone(at, zone).toFormat('d LLL, HH:mm:ss')
/** `Thu 3 Dec 2026, 06:00` */
export const datedMoment = (at: Moment, zone: string): string => inZone(at, zone).toFormat('ccc d LLL yyyy, HH:mm')
/** `Thursday 3 December 2026, 06:00` */
export const longMoment = (at: Moment, zone: string): string => inZone(at, zone).toFormat('cccc d LLLL yyyy, HH:mm')

/** How a zone differs from UTC at a moment: `UTC+1`, `UTC−3:30`. */
export function offsetWords(at: Moment, zone: string): string {
  const { offset } = inZone(at, zone)
  const [hours, minutes] = [Math.floor(Math.abs(offset) / 60), Math.abs(offset) % 60]
  if (offset === 0) return 'UTC'
  return `UTC${offset < 0 ? '−' : '+'}${hours}${minutes ? `:${String(minutes).padStart(2, '0')}` : ''}`
}

/** The place that a zone is named after: `New York` of America/New_York. */
export const placeOf = (zone: string): string => zone.split('/').at(-1)!.replaceAll('_', ' ')

/** What time it is then in other places, with the day where that is another: `00:00 in New York`. */
export const timesThere = (at: Moment, zone: string, others: readonly string[]): string =>
  others
    .map(other => {
      const isOtherDay = shortMoment(at, other).slice(0, -7) !== shortMoment(at, zone).slice(0, -7)
      return t('timeInPlace', {
        time: isOtherDay ? shortMoment(at, other) : timeOfDay(at, other),
        place: placeOf(other),
      })
    })
    .join(' · ')

/** How far off a moment is: `in 8 days`, `in 25 minutes`, `just now`. */
export function untilThen(at: Moment, now: Date): string {
  if (Math.abs(+new Date(at) - +now) < 1000) return t('justNow')
  const hours = Math.floor((+new Date(at) - +now) / 3600_000)
  if (hours >= 24 && hours < 72) return t('inHours', { hours })
  return inZone(at, 'utc').toRelative({ base: DateTime.fromJSDate(now), locale }) ?? ''
}
