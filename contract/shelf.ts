import { z } from 'zod'
import { audioFile } from './sound'

/** A file on a show's shelf, and where it is used. */
export const shelfFile = audioFile.extend({
  cameAt: z.string(),
  usedBy: z.array(z.object({
    id: z.string(),
    title: z.string(),
    number: z.number().nullable(),
    /** What it is to the episode; `past` files answer at their old address for a while. */
    as: z.enum(['source', 'finished', 'delivered', 'past']),
  })),
})
export type ShelfFile = z.infer<typeof shelfFile>

export const shelf = z.object({ files: z.array(shelfFile), usedBytes: z.number(), freeBytes: z.number() })
export type Shelf = z.infer<typeof shelf>

export const reuse = z.object({ fileId: z.uuid() })
