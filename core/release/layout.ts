import { DateTime } from 'luxon'
import type { Rhythm, Weekday } from './rhythm'
import { type Slot, slotAt, slotsFrom, slotsUpTo } from './slots'

/** How a row of episodes is laid out over time: from a day on, or up to it; one per slot, on days of the week, or every so many days. */
export interface Layout {
  way: 'from' | 'up to'
  day: string
  step:
    | { kind: 'slots' }
    | { kind: 'weekdays'; days: Weekday[]; time: string }
    | { kind: 'days'; every: number; time: string }
}

/** What stands around it: the show's rhythm and zone, and when something else goes out or went out already. */
export interface Around {
  rhythm: Rhythm | null
  zone: string
  taken: readonly Date[]
  now: Date
}

/** So many moments in their order, the earliest first. None where it asks for slots and there is no rhythm. */
export function layOut({ way, day, step }: Layout, { rhythm, zone, taken }: Around, count: number): Slot[] {
  const days = taken.map(at => DateTime.fromJSDate(at, { zone }).toISODate()!)
  if (step.kind === 'days') return everySoManyDays({ way, day, ...step }, zone, count)
  const turn = step.kind === 'weekdays' ? weekly(step, day) : rhythm
  if (!turn) return []
  const open = { ...turn, leftOut: [...new Set([...turn.leftOut, ...days])] }
  return way === 'from' ? slotsFrom(open, zone, day, count) : slotsUpTo(open, zone, day, count).toReversed()
}

const weekly = ({ days, time }: { days: readonly Weekday[]; time: string }, from: string): Rhythm => ({
  unit: 'week',
  every: 1,
  days: [...days],
  nth: null,
  monthDay: null,
  time,
  from,
  leftOut: [],
})

function everySoManyDays(
  { way, day, every, time }: { way: Layout['way']; day: string; every: number; time: string },
  zone: string,
  count: number,
): Slot[] {
  const first = DateTime.fromISO(day, { zone: 'utc' }).minus({ days: way === 'from' ? 0 : (count - 1) * every })
  return Array.from({ length: count }, (_none, index) =>
    slotAt(`${first.plus({ days: index * every }).toISODate()!}T${time}`, zone),
  )
}
