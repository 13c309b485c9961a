import { z } from 'zod'

/** How far the clock may be moved in one step: a year. */
const farthestMs = 366 * 24 * 3600_000

/** Where the clock is moved to: so far forward, or to the next moment at which something goes out. */
export const clockMove = z.discriminatedUnion('to', [
  z.object({
    to: z.literal('later'),
    byMs: z.number().int('A whole number of milliseconds.').min(1, 'Only forward.').max(farthestMs, 'At most a year.'),
  }),
  z.object({ to: z.literal('next release') }),
])
export type ClockMove = z.infer<typeof clockMove>

/** What time it is here, and by how much that is ahead of the world. */
export const clockReading = z.object({ now: z.string(), offsetMs: z.number() })
export type ClockReading = z.infer<typeof clockReading>
