import { z } from 'zod'
import { blockKinds, faces, layouts, type Look } from '@core/site/look'
import { isColour } from '@core/site/contrast'
import type { Seeds } from '@core/site/palette'
import { pictureId } from '@core/words/schemas'

const colour = z
  .string()
  .transform(words => words.toLowerCase())
  .refine(isColour, 'A colour as # and six digits of 0 to 9 and a to f, such as #12495f.')

const block = z.object({ kind: z.enum(blockKinds), isOn: z.boolean() })

export const look = z.object({
  layout: z.enum(layouts),
  face: z.enum(faces),
  colours: z.object({ accent: colour, band: colour }).nullable(),
  headerPictureId: pictureId.nullable(),
  blocks: z
    .array(block)
    .readonly()
    .refine(
      blocks =>
        new Set(blocks.map(({ kind }) => kind)).size === blockKinds.length && blocks.length === blockKinds.length,
      'Each of the blocks once.',
    ),
})

/** A look to be tried; it names the version that it was changed from. */
export const triedLook = z.object({ version: z.int32().min(0), look })
export type TriedLook = z.infer<typeof triedLook>
export const lookStep = z.object({ version: z.int32().min(0) })
export type LookStep = z.infer<typeof lookStep>

/** Looks of a show's pages. */
export const showLook = z.object({
  version: z.number(),
  /** As it is being tried; the same as the one that is out where nobody tries another. */
  tried: z.custom<Look>(),
  out: z.custom<Look>(),
  former: z.custom<Look>().nullable(),
  /** The colours that were found in the artwork. */
  found: z.custom<Seeds>(),
})
export type ShowLook = z.infer<typeof showLook>
