/** Days of the week as RFC 5545 has them (section 3.3.10), the first first. */
export const weekdays = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const
export type Weekday = (typeof weekdays)[number]

/** Which one of a month's: the first to the fourth, or the last. */
export const ordinals = [1, 2, 3, 4, -1] as const
export type Ordinal = (typeof ordinals)[number]

/** When a show usually goes out: a recurrence at local time, whatever its zone does with the clock. */
export interface Rhythm {
  unit: 'day' | 'week' | 'month'
  /** Each such unit, or every so many of them, counted from `from` on. */
  every: number
  /** Of a week: its days. Of a month: the one weekday that `nth` is of. */
  days: Weekday[]
  /** Of a month: which of its weekdays; null where it is a day of the month. */
  nth: Ordinal | null
  /** Of a month: its day, 1 to 31, or −1 for the last; a month that has no such day is passed over. */
  monthDay: number | null
  /** `00:05` */
  time: string
  /** The first day on which something may go out: `2026-01-06`. */
  from: string
  /** Days on which nothing goes out. */
  leftOut: string[]
}

const monthDays = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]

/** Whether it ever has a date: the 31st of February and of every twelfth month after it does not come. */
export function hasDates({ unit, every, nth, monthDay, from }: Rhythm): boolean {
  if (unit !== 'month' || nth !== null || monthDay === null || monthDay < 0) return true
  const first = Number(from.slice(5, 7)) - 1
  return monthDays.some((_days, turn) => monthDay <= monthDays[(first + turn * every) % 12]!)
}

const dayNames: Readonly<Record<Weekday, string>> = {
  MO: 'Monday',
  TU: 'Tuesday',
  WE: 'Wednesday',
  TH: 'Thursday',
  FR: 'Friday',
  SA: 'Saturday',
  SU: 'Sunday',
}
export const dayName = (day: Weekday): string => dayNames[day]
const ordinalNames: Readonly<Record<Ordinal, string>> = {
  1: 'first',
  2: 'second',
  3: 'third',
  4: 'fourth',
  [-1]: 'last',
}
export const ordinalName = (nth: Ordinal): string => ordinalNames[nth]

const list = new Intl.ListFormat('en-GB')

/** A rhythm in words: `Every other Tuesday at 00:05`. */
export function rhythmWords(rhythm: Rhythm): string {
  return `${patternWords(rhythm)} at ${rhythm.time}`
}

function patternWords({ unit, every, days, nth, monthDay }: Rhythm): string {
  if (unit === 'day') return every === 1 ? 'Every day' : every === 2 ? 'Every other day' : `Every ${every} days`
  if (unit === 'week') {
    const named = daysWords(days)
    if (every === 1) return days.length === 7 ? 'Every day' : days.length > 1 ? named : `Every ${named}`
    return every === 2
      ? days.length > 1
        ? `${named} of every other week`
        : `Every other ${named}`
      : `${named}, every ${every} weeks`
  }
  const which =
    nth === null ? (monthDay === -1 ? 'last day' : numbered(monthDay ?? 1)) : `${ordinalNames[nth]} ${daysWords(days)}`
  return `The ${which} of ${every === 1 ? 'each month' : every === 2 ? 'every other month' : `every ${every} months`}`
}

function daysWords(days: readonly Weekday[]): string {
  const sorted = weekdays.filter(day => days.includes(day))
  const [first, last] = [weekdays.indexOf(sorted[0]!), weekdays.indexOf(sorted.at(-1)!)]
  const isRun = sorted.length > 2 && last - first === sorted.length - 1
  return isRun ? `${dayNames[sorted[0]!]} to ${dayNames[sorted.at(-1)!]}` : list.format(sorted.map(dayName))
}

const rules = new Intl.PluralRules('en', { type: 'ordinal' })
const endings: Readonly<Record<string, string>> = { one: 'st', two: 'nd', few: 'rd', other: 'th' }
const numbered = (number: number): string => `${number}${endings[rules.select(number)]}`
