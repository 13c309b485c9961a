import { DateTime } from 'luxon'
import * as library from 'rrule'
import { readLocalMoment } from './moment'
import type { Rhythm } from './rhythm'

/** The same library is a module with names for the browser, and one thing with them inside for Node.js. */
const { RRule } = ('default' in library ? library.default : library) as typeof library

/** One moment of a rhythm, and as the wall clock shows it there. */
export interface Slot {
  at: Date
  /** `2026-12-01T00:05` */
  local: string
}

/** The recurrence of a rhythm as RFC 5545 writes it, without its start. */
export const ruleOf = (rhythm: Rhythm): string => RRule.optionsToString(optionsOf(rhythm)).replace(/^RRULE:/, '')

const frequencies = { day: RRule.DAILY, week: RRule.WEEKLY, month: RRule.MONTHLY }

function optionsOf({ unit, every, days, nth, monthDay }: Rhythm) {
  return {
    freq: frequencies[unit],
    interval: every,
    wkst: RRule.MO,
    ...(unit === 'week' && { byweekday: days.map(day => RRule[day]) }),
    ...(unit === 'month' && nth !== null && { byweekday: days.map(day => RRule[day].nth(nth)) }),
    ...(unit === 'month' && nth === null && { bymonthday: [monthDay ?? 1] }),
  }
}

/** The next slots behind a moment, in their order. Those that a change of clock leaps over come with the first minute that there is. */
export function slotsAfter(rhythm: Rhythm, zone: string, after: Date, count: number): Slot[] {
  // The library knows no zones as they are meant here: it is given wall times as if they were UTC.
  // What lies long ago is not counted through: a start shortly before keeps the same turn.
  const near = startNear(rhythm, after.toISOString().slice(0, 10), 2)
  const from = near > rhythm.from ? near : rhythm.from
  const rule = new RRule({ ...optionsOf(rhythm), dtstart: new Date(`${from}T${rhythm.time}:00Z`) })
  const leftOut = new Set(rhythm.leftOut)
  const slots: Slot[] = []
  if (count > 0)
    rule.all(floating => {
      const slot = slotAt(floating.toISOString().slice(0, 16), zone)
      if (slot.at > after && !leftOut.has(slot.local.slice(0, 10))) slots.push(slot)
      return slots.length < count
    })
  return slots
}

/** A wall time as a slot; what a change of clock leaps over is the first minute that there is. */
export function slotAt(local: string, zone: string): Slot {
  const read = readLocalMoment(local, zone)
  if (read.kind === 'skipped') return slotAt(read.next, zone)
  if (read.kind === 'unreadable') throw new RangeError(`${local} is no time in ${zone}.`)
  return { at: read.at, local }
}

/** The next slots on days on which nothing goes out yet. */
export function openSlots(rhythm: Rhythm, zone: string, taken: readonly Date[], after: Date, count: number): Slot[] {
  const days = new Set(taken.map(at => DateTime.fromJSDate(at, { zone }).toISODate()!))
  return slotsAfter({ ...rhythm, leftOut: [...rhythm.leftOut, ...days] }, zone, after, count)
}

/** The slots from a day on, and up to one with the latest first, as if the rhythm had been kept for ever: for what is dated back. */
export const slotsFrom = (rhythm: Rhythm, zone: string, day: string, count: number): Slot[] =>
  slotsAfter({ ...rhythm, from: startNear(rhythm, day, 1) }, zone, justBefore(day, zone), count)

export function slotsUpTo(rhythm: Rhythm, zone: string, day: string, count: number): Slot[] {
  const end = justBefore(DateTime.fromISO(day, { zone: 'utc' }).plus({ days: 1 }).toISODate()!, zone)
  const leftOut = new Set(rhythm.leftOut)
  for (let periods = count + leftOut.size + 1; ; periods *= 2) {
    const from = startNear(rhythm, day, periods)
    const rule = new RRule({ ...optionsOf(rhythm), dtstart: new Date(`${from}T${rhythm.time}:00Z`) })
    const slots = rule
      .between(new Date(`${from}T00:00:00Z`), new Date(`${day}T23:59:59Z`), true)
      .map(floating => slotAt(floating.toISOString().slice(0, 16), zone))
      .filter(({ at, local }) => at <= end && !leftOut.has(local.slice(0, 10)))
    if (slots.length >= count || from < longAgo) return slots.slice(-count).toReversed()
  }
}
/** Nothing is dated back farther. */
const longAgo = '1990-01-01'

/** The last moment before a day begins. */
const justBefore = (day: string, zone: string): Date =>
  DateTime.fromISO(day, { zone }).startOf('day').minus({ milliseconds: 1 }).toJSDate()

/** A start so many of its periods before a day, from which a rhythm goes the same as from its own. */
function startNear({ unit, every, from }: Rhythm, day: string, periods: number): string {
  const start = DateTime.fromISO(from, { zone: 'utc' })
  // A month's rhythm names the day itself; the first is a day that each month has.
  const own = unit === 'month' ? start.startOf('month') : unit === 'week' ? start.startOf('week') : start
  const between = DateTime.fromISO(day, { zone: 'utc' }).diff(own, `${unit}s`).as(`${unit}s`)
  const whole = Math.floor(between / every) - periods
  return own.plus({ [`${unit}s`]: whole * every }).toISODate()!
}
