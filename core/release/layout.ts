import { DateTime } from 'luxon'
import type { Rhythm } from './rhythm'
import { type Slot, slotAt, slotsFrom, slotsUpTo } from './slots'

/** How a row of episodes is laid out over time: from a day on, or up to it; one for each slot, or every so many days. */
export interface Layout {
  way: 'from' | 'up to'
  day: string
  step: { kind: 'slots' } | { kind: 'days'; every: number; time: string }
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
  if (!rhythm) return []
  const open = { ...rhythm, leftOut: [...new Set([...rhythm.leftOut, ...days])] }
  return way === 'from' ? slotsFrom(open, zone, day, count) : slotsUpTo(open, zone, day, count).toReversed()
}

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
