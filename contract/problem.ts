import { z } from 'zod'

/** One bad input: where it stands, what stood there, and the rule it breaks. */
export const fault = z.object({ field: z.string(), value: z.string(), rule: z.string() })
export type Fault = z.infer<typeof fault>

/** An error as the API answers it: RFC 9457 section 3, with the extension members `code`, `todo` and `faults`. */
export const problem = z
  .object({
    type: z.string(),
    code: z.string(),
    title: z.string(),
    status: z.number(),
    detail: z.string(),
    todo: z.string(),
    faults: z.array(fault).optional(),
  })
  .loose()
export type Problem = z.infer<typeof problem>
