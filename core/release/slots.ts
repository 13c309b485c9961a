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
  const rule = new RRule({ ...optionsOf(rhythm), dtstart: new Date(`${rhythm.from}T${rhythm.time}:00Z`) })
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

function slotAt(local: string, zone: string): Slot {
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
