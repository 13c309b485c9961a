import { z } from 'zod'
import { words } from '@core/words/schemas'

export const newListeners = z.object({
  names: z.array(words(120)).min(1, 'At least one name.').max(200, 'At most 200 at once.'),
  /** Null for the whole show. */
  strandId: z.uuid().nullable(),
})
export type NewListeners = z.infer<typeof newListeners>

const listener = z.object({
  id: z.string(),
  name: z.string(),
  strandId: z.string().nullable(),
  /** Of the feed that is theirs alone. */
  address: z.string(),
  since: z.string(),
  renewedAt: z.string().nullable(),
  withdrawnAt: z.string().nullable(),
  /** When the feed was last fetched, and by what. */
  lastAt: z.string().nullable(),
  agent: z.string().nullable(),
})
export type Listener = z.infer<typeof listener>

export const listenerList = z.object({
  /** Whether the whole show is for its own listeners. */
  isPrivate: z.boolean(),
  /** The strands that are. */
  strands: z.array(z.object({ id: z.string(), name: z.string() })),
  listeners: z.array(listener),
})
export type ListenerList = z.infer<typeof listenerList>
