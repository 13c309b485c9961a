import { z } from 'zod'
import { hasDates, ordinals, type Rhythm, weekdays } from '@core/release/rhythm'

export const calendarDay = z.iso.date('A day that there is, such as 2026-12-01.')
export const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time such as 06:00.')
const unique = <T>(list: readonly T[]): boolean => new Set(list).size === list.length

/** When a show usually goes out. */
export const rhythm = z
  .object({
    unit: z.enum(['day', 'week', 'month'], 'Days, weeks or months.'),
    every: z.number().int('A whole number.').min(1, 'At least 1.').max(52, 'At most 52.'),
    days: z.array(z.enum(weekdays)).max(7, 'At most seven days.').refine(unique, 'Each day once.'),
    nth: z.literal([...ordinals], 'The first to the fourth, or the last.').nullable(),
    monthDay: z
      .number()
      .int('A whole number.')
      .min(-1, 'A day of the month, or −1 for its last.')
      .max(31, 'A day of the month, or −1 for its last.')
      .refine(number => number !== 0, 'A day of the month, or −1 for its last.')
      .nullable(),
    time: timeOfDay,
    from: calendarDay,
    leftOut: z.array(calendarDay).max(366, 'At most 366 days.').refine(unique, 'Each day once.'),
  })
  .refine(({ unit, days }) => unit !== 'week' || days.length > 0, { path: ['days'], message: 'At least one day.' })
  .refine(({ unit, days, nth }) => unit !== 'month' || nth === null || days.length === 1, {
    path: ['days'],
    message: 'One day of the week.',
  })
  .refine(({ unit, nth, monthDay }) => unit !== 'month' || nth !== null || monthDay !== null, {
    path: ['monthDay'],
    message: 'A day of the month, or one of its weekdays.',
  })
  .refine(hasDates, {
    path: ['monthDay'],
    message: 'A day that at least one of these months has.',
  }) satisfies z.ZodType<Rhythm>

export const slotQuery = z.object({
  count: z.coerce.number().int('A whole number.').min(1, 'At least 1.').max(60, 'At most 60.').default(6),
})

/** The next slots of a show's rhythm on which nothing goes out yet. */
export const slotList = z.object({ slots: z.array(z.object({ at: z.string(), local: z.string() })) })
export type SlotList = z.infer<typeof slotList>
