import { z } from 'zod'
import { episode } from './episodes'
import { theme } from './siteThemes'
import { transcript } from './transcripts'

/** One bad input: where it stands, what stood there, and the rule it breaks. */
export const fault = z.object({ field: z.string(), value: z.string(), rule: z.string() })
export type Fault = z.infer<typeof fault>

/** Extension members that some errors have (RFC 9457 section 3.2). */
const extension = z.object({
  /** What is there by now, where a write was refused since another window was first. */
  current: z.union([episode, transcript, theme]).optional(),
  /** What was refused is kept, under this id. */
  keptId: z.string().optional(),
  /** The middle square of a picture that is not one, and how large the picture is. */
  crop: z.object({ left: z.number(), top: z.number(), sidePx: z.number() }).optional(),
  widthPx: z.number().optional(),
  heightPx: z.number().optional(),
})
export type ProblemExtension = z.infer<typeof extension>

/** An error as the API answers it: RFC 9457 section 3; a member that stands here not never leaves the server. */
export const problem = extension.extend({
  type: z.string(),
  code: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string(),
  todo: z.string(),
  faults: z.array(fault).optional(),
})
export type Problem = z.infer<typeof problem>
