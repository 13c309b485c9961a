import { z } from 'zod'

/** What stands in another order by date than by number, or goes out at the same moment. */
export const orderFindings = z.object({
  total: z.number(),
  findings: z.array(
    z.object({
      kind: z.enum(['out of order', 'same moment']),
      /** The first few: of two out of order the one with the lower number first. */
      episodes: z.array(z.object({ id: z.string(), title: z.string(), number: z.number().nullable(), at: z.string() })),
      count: z.number(),
      /** The episodes that a mend gives other dates. */
      fix: z.array(z.string()),
    }),
  ),
})
export type OrderFindings = z.infer<typeof orderFindings>
