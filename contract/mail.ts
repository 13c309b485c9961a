import { z } from 'zod'
import { mailKinds } from '@core/release/notices'

/** What a person is written of, and what became of the last mails. */
export const mailState = z.object({
  /** The email that it goes to. */
  to: z.string(),
  /** Whether a mail server is set. */
  isSent: z.boolean(),
  unwanted: z.array(z.enum(mailKinds)),
  last: z.array(
    z.object({
      id: z.string(),
      subject: z.string(),
      state: z.enum(['waiting', 'sent', 'given up']),
      problem: z.string().nullable(),
      at: z.string(),
    }),
  ),
})
export type MailState = z.infer<typeof mailState>

export const mailChange = z.object({ unwanted: z.array(z.enum(mailKinds)).max(mailKinds.length) })
export type MailChange = z.infer<typeof mailChange>
