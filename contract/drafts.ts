import { z } from 'zod'
import { language } from './transcripts'

/** A draft of a transcript that the transcription service was asked for: on its way, or failed. */
export const transcriptDraft = z.object({
  id: z.string(),
  language: z.string(),
  state: z.enum(['working', 'failed']),
  /** From 0 to 1. */
  progress: z.number(),
  /** Why it waits, or failed; null where it goes on. */
  problem: z.string().nullable(),
})
export type TranscriptDraft = z.infer<typeof transcriptDraft>

export const wantedDraft = z.object({ language })
