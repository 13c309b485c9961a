import type { ShowNumbers } from '@contract/numbers'

const dayMs = 24 * 3600_000

/** How far back figures are shown; null for all of them. */
export const periods = { '30': 30, '90': 90, '365': 365, all: null } as const
export type Period = keyof typeof periods
export const isPeriod = (text: unknown): text is Period => typeof text === 'string' && text in periods

const iso = (at: number): string => new Date(at).toISOString().slice(0, 10)

/** The days (UTC) of a period that ends today; none where all are wanted. */
export function daysOf(period: Period, now: Date): { from?: string; to?: string } {
  const many = periods[period]
  return many === null ? {} : { from: iso(+now - (many - 1) * dayMs), to: iso(+now) }
}

/** A figure for each day, or each week where there are many of them, also where there was nothing. */
export interface Step {
  /** Its first day. */
  from: string
  /** Its last. */
  to: string
  downloads: number
}

const mostSteps = 100

export function stepsOf({ days, from, to }: Pick<ShowNumbers, 'days' | 'from' | 'to'>): Step[] {
  const [first, last] = [Date.parse(from), Date.parse(to)]
  const length = (last - first) / dayMs + 1 > mostSteps ? 7 : 1
  const steps = Array.from({ length: Math.ceil(((last - first) / dayMs + 1) / length) }, (_, n) => ({
    from: iso(first + n * length * dayMs),
    to: iso(Math.min(last, first + ((n + 1) * length - 1) * dayMs)),
    downloads: 0,
  }))
  for (const { day, downloads } of days) {
    const step = steps[Math.floor((Date.parse(day) - first) / dayMs / length)]
    if (step) step.downloads += downloads
  }
  return steps
}
