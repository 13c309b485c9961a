import { z } from 'zod'

export const wantedDomain = z.object({ host: z.string().max(300, 'At most 300 characters.') })
export type WantedDomain = z.infer<typeof wantedDomain>

/** The host name of a show, and the one that is still to be proved. */
export const customDomain = z.object({
  hostName: z.string().nullable(),
  claim: z
    .object({
      host: z.string(),
      /** What is to stand somewhere, so that nobody takes the name of another. */
      word: z.string(),
      record: z.string(),
      file: z.string(),
    })
    .nullable(),
  /** Where the name is to lead: the house’s own. */
  leadsTo: z.string(),
})
export type CustomDomain = z.infer<typeof customDomain>
