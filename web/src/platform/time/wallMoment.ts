import { DateTime } from 'luxon'
import type { WallMoment } from '@contract/episodes'
import { readLocalMoment } from '@core/release/moment'
import { readTimeOfDay } from './timeOfDay'
import { t } from './messages'

/** A moment while it is chosen. The day is as a calendar holds it: its year, month and day are meant, its zone is not. */
export interface Picked {
  day: Date | null
  time: string
  zone: string
  /** Of a time that the clock shows twice the second. */
  second: boolean
}

/** `2026-12-03T06:00` by the clock of a zone, as if it had been chosen. */
export const pickedOf = (local: string, zone: string): Picked => ({
  day: DateTime.fromISO(local.slice(0, 10)).toJSDate(),
  time: local.slice(11, 16),
  zone,
  second: false,
})

/** What was chosen comes to: a moment with how it is named, or what is wrong with it. */
export interface ReadPicked {
  meant: WallMoment | null
  at: Date | null
  fault: string | undefined
  /** The second of the two moments, where the clock shows the time twice. */
  twice: Date | null
}

export function readPicked({ day, time, zone, second }: Picked): ReadPicked {
  const none = { meant: null, at: null, twice: null }
  if (!day) return { ...none, fault: t('dayRule') }
  const read = readTimeOfDay(time)
  if (!read) return { ...none, fault: t('timeRule') }
  const local = `${DateTime.fromJSDate(day).toISODate()}T${read}`
  const moment = readLocalMoment(local, zone)
  if (moment.kind === 'unreadable') return { ...none, fault: t('momentRule') }
  if (moment.kind === 'skipped')
    return {
      ...none,
      fault: t('timeSkipped', { zone, time: local.slice(11), next: moment.next.slice(11) }),
    }
  const twice = moment.kind === 'twice' ? moment.second : null
  const at = twice && second ? twice : moment.at
  return { meant: { local, zone, ...(twice && { second }) }, at, fault: undefined, twice }
}
