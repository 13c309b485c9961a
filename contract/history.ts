import { z } from 'zod'
import { episodeFields, keptSchemas, writtenSchemas } from '@core/episode/fields'

/** Whoever wrote something; null where it was the house, or an account that is gone. */
export const writer = z.object({ email: z.string(), isYou: z.boolean() }).nullable()
export type Writer = z.infer<typeof writer>

/** One state of an episode's text: as it was begun, written, filled in from a file, changed with others, or refused and kept aside. */
export const pastState = z.object({
  id: z.uuid(),
  act: z.enum(['begun', 'written', 'filled in', 'many at once', 'kept aside']),
  by: writer,
  at: z.string(),
  /** What was another before. */
  fields: z.array(z.enum(episodeFields as readonly [string, ...string[]])),
  /** It went out to listeners. */
  isSent: z.boolean(),
})
export type PastState = z.infer<typeof pastState>

/** The states of the last 90 days, newest first. */
export const history = z.object({ states: z.array(pastState) })
export type History = z.infer<typeof history>

/** A state with its words; one that was kept aside has only those that were refused. */
export const pastText = pastState.extend({ text: z.object(keptSchemas).partial() })
export type PastText = z.infer<typeof pastText>

/** Words that lost to those of another window, and the version they started from. */
export const aside = z.object({ version: z.number().int().min(1), text: z.object(writtenSchemas).partial() })
export type Aside = z.infer<typeof aside>
