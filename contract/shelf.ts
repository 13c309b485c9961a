import { z } from 'zod'
import { audioFile } from './sound'

/** A file on a show's shelf, and where it is used. */
export const shelfFile = audioFile.extend({
  cameAt: z.string(),
  /** Whether the episodes of the show usually begin or end with it. */
  isUsual: z.boolean(),
  /** By how many episodes, and some of these. */
  uses: z.number(),
  usedBy: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      number: z.number().nullable(),
      /** What it is to the episode: `mixed` files are parts of what it is put together of, `past` files answer at their old address for a while. */
      as: z.enum(['source', 'mixed', 'finished', 'delivered', 'past']),
    }),
  ),
})
export type ShelfFile = z.infer<typeof shelfFile>

/** Which page of a shelf: behind one that was had before. */
export const shelfQuery = z.object({
  /** The `after` of the page before. */
  after: z.uuid('The `after` of a page that was had before.').optional(),
  limit: z.coerce.number().int('A whole number.').min(1, 'At least 1.').max(100, 'At most 100.').default(50),
})
export type ShelfQuery = z.infer<typeof shelfQuery>

/** A page of a shelf, the newest first, and what all of it takes. */
export const shelf = z.object({
  files: z.array(shelfFile),
  after: z.string().nullable(),
  total: z.number(),
  unused: z.number(),
  usedBytes: z.number(),
  freeBytes: z.number(),
})
export type Shelf = z.infer<typeof shelf>

export const reuse = z.object({ fileId: z.uuid() })
