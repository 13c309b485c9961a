import { z } from 'zod'
import { strandFault, strandWays } from '@core/feed/strands'
import { utf8Bytes } from '@core/words/line'
import { line, pictureId, words } from '@core/words/schemas'
import { addressPart } from './shows'

const facts = z.object({
  name: words(120),
  /** Null where it is the show's, as for the artwork. */
  description: z
    .string()
    .trim()
    .min(1, 'Must not be empty.')
    .refine(text => utf8Bytes(text) <= 4000, 'At most 4,000 bytes; letters outside a to z take two to four each.')
    .nullable(),
  artworkId: pictureId.nullable(),
  goesBy: z.enum(strandWays),
  value: line(120).nullable(),
  /** Whether its episodes go out to listeners with an address of their own only. */
  isPrivate: z.boolean().default(false),
})
const fitting = (strand: z.infer<typeof facts>, context: z.RefinementCtx): void => {
  const message = strandFault(strand)
  if (message) context.addIssue({ code: 'custom', path: ['value'], message })
}

export const newStrand = facts.extend({ slug: addressPart }).superRefine(fitting)
export type NewStrand = z.infer<typeof newStrand>

/** A strand as it is to be; its address stays. */
export const strandChange = facts.extend({ version: z.int32().min(0) }).superRefine(fitting)
export type StrandChange = z.infer<typeof strandChange>

export const strandChoice = z.object({
  episodeIds: z.array(z.uuid()).max(10_000, 'At most 10,000 episodes.'),
})

const strand = z.object({
  id: z.string(),
  slug: z.string(),
  version: z.number(),
  name: z.string(),
  description: z.string().nullable(),
  artworkId: z.string().nullable(),
  artworkAddress: z.string(),
  goesBy: z.enum(strandWays),
  value: z.string().nullable(),
  isPrivate: z.boolean(),
  feedAddress: z.string(),
  /** How many of its episodes are out. */
  released: z.number(),
  /** Those that were chosen by hand. */
  episodeIds: z.array(z.string()),
})
export type Strand = z.infer<typeof strand>

export const strandList = z.object({
  strands: z.array(strand),
  /** All episodes that can be chosen, the newest first. */
  episodes: z.array(z.object({ id: z.string(), title: z.string(), number: z.number().nullable() })),
})
export type StrandList = z.infer<typeof strandList>
