import { z } from 'zod'
import { episodeSummary } from './episodes'
import { calendarDay } from './rhythm'

/** At most so many shows, and so many days, stand in one calendar. */
const [mostShows, mostDays] = [20, 100]
const dayMs = 24 * 3600_000

/** Which stretch of days of which shows, by their ids with commas between; both days count. */
export const calendarQuery = z
  .object({
    from: calendarDay,
    to: calendarDay,
    shows: z
      .string()
      .transform(list => list.split(','))
      .pipe(z.array(z.uuid('The id of a show.')).min(1, 'At least one show.').max(mostShows, 'At most 20 shows.')),
  })
  .refine(({ from, to }) => from <= to, { path: ['to'], message: 'Not before the first day.' })
  .refine(({ from, to }) => +new Date(to) - +new Date(from) <= mostDays * dayMs, {
    path: ['to'],
    message: 'At most 100 days behind the first.',
  })
export type CalendarQuery = z.infer<typeof calendarQuery>

const calendarEpisode = episodeSummary.extend({ showId: z.string() })

/** What goes out and went out, the open slots, and what goes out first after these days. */
export const calendar = z.object({
  shows: z.array(z.object({ id: z.string(), slug: z.string(), name: z.string(), zone: z.string() })),
  episodes: z.array(calendarEpisode),
  slots: z.array(z.object({ showId: z.string(), at: z.string(), local: z.string() })),
  next: calendarEpisode.nullable(),
})
export type Calendar = z.infer<typeof calendar>
export type CalendarEpisode = Calendar['episodes'][number]

/** The secret address that a person's own calendar reads; null where there is none. */
export const calendarAddress = z.object({ address: z.string().nullable() })
export type CalendarAddress = z.infer<typeof calendarAddress>
