import { z } from 'zod'

export const credentials = z.object({
  email: z.email('An email address, such as name@example.org.').max(254, 'At most 254 characters.'),
  password: z.string().min(1, 'Must not be empty.').max(200, 'At most 200 characters.'),
})
export type Credentials = z.infer<typeof credentials>

export const newAccount = credentials.extend({
  password: z
    .string()
    .min(12, 'At least 12 characters. Several random words work well.')
    .max(200, 'At most 200 characters.'),
})

/** What the studio needs to know before it can show anything. */
export const session = z.object({
  /** No account exists yet: the first visit makes it. */
  firstVisit: z.boolean(),
  account: z.object({ id: z.string(), email: z.string() }).nullable(),
  maxUploadBytes: z.number(),
  /** The host of the copyist that drafts transcripts, when there is one. */
  transcriptionHost: z.string().nullable(),
  /** What there is in the demo only; elsewhere null. */
  demo: z
    .object({
      /** Where the stand-in listener lives, when one runs. */
      listenerAddress: z.string().nullable(),
      /** Where the stand-in outbox shows the mail that arrived, when one runs. */
      outboxAddress: z.string().nullable(),
      /** By how much time here is ahead of the world, where it can be moved; else null. */
      clockOffsetMs: z.number().nullable(),
    })
    .nullable(),
})
export type Session = z.infer<typeof session>
