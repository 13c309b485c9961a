import { z } from 'zod'
import { blockKinds, faces, layouts, type SiteTheme } from '@core/site/siteTheme'
import { isColour } from '@core/site/contrast'
import type { Seeds } from '@core/site/palette'
import { pictureId } from '@core/words/schemas'

const colour = z
  .string()
  .transform(words => words.toLowerCase())
  .refine(isColour, 'A colour as # and six digits of 0 to 9 and a to f, such as #12495f.')

const block = z.object({ kind: z.enum(blockKinds), isOn: z.boolean() })

export const theme = z.object({
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
export const triedTheme = z.object({ version: z.int32().min(0), theme })
export type TriedTheme = z.infer<typeof triedTheme>
export const themeStep = z.object({ version: z.int32().min(0) })
export type ThemeStep = z.infer<typeof themeStep>

/** Looks of a show's pages. */
export const showTheme = z.object({
  version: z.number(),
  /** As it is being tried; the same as the one that is out where nobody tries another. */
  tried: z.custom<SiteTheme>(),
  out: z.custom<SiteTheme>(),
  former: z.custom<SiteTheme>().nullable(),
  /** The colours that were found in the artwork. */
  found: z.custom<Seeds>(),
})
export type ShowTheme = z.infer<typeof showTheme>
