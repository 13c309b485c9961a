import { z } from 'zod'
import { longestSoundMs } from '@core/episode/fields'
import { type Cue, longestDoubt, longestSpeaker, mostCues, mostDoubts } from '@core/transcript/cue'
import { transcriptFormats } from '@core/transcript/formats'
import { version } from './sound'

/** BCP 47, for example `en` or `pt-br`. */
export const language = z
  .string()
  .max(35, 'At most 35 characters.')
  .regex(/^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i, 'A language tag, such as en or pt-br.')
  .overwrite(tag => tag.toLowerCase())

const timestamp = z
  .number()
  .int('A whole number.')
  .min(0, 'At least 0.')
  .max(longestSoundMs, 'At most 1,000 hours.')
  .nullable()
const words = (most: number) => z.string().max(most, `At most ${most.toLocaleString('en')} characters.`)
const mostCueLetters = 100_000

export const cue: z.ZodType<Cue> = z.object({
  id: z.string().regex(/^[\w-]{1,40}$/, 'Up to 40 letters a to z, digits and hyphens.'),
  fromMs: timestamp,
  toMs: timestamp,
  speaker: words(longestSpeaker).nullable(),
  text: words(mostCueLetters),
  kept: z
    .object({
      name: words(1000).optional(),
      settings: words(1000).optional(),
      marked: z
        .object({
          format: z.enum(['vtt', 'srt']),
          source: words(mostCueLetters * 2),
          text: words(mostCueLetters),
          speaker: words(longestSpeaker).nullable(),
        })
        .optional(),
      notes: z.array(words(10_000)).max(100, 'At most 100 comments.').optional(),
    })
    .optional(),
  sure: z.number().min(0).max(1).optional(),
  doubtful: z.array(words(longestDoubt)).max(mostDoubts, `At most ${mostDoubts}.`).optional(),
  isPinned: z.boolean().optional(),
}) as z.ZodType<Cue>

/** The same as it is kept: files bring what nobody may write. */
const keptCue = z.custom<Cue>()

/** A transcript in a list. */
export const transcriptSummary = z.object({
  id: z.string(),
  language: z.string(),
  isSpoken: z.boolean(),
  version: z.number(),
  cueCount: z.number(),
  isTimed: z.boolean(),
  origin: z.enum(['file', 'written', 'aligned', 'drafted']),
  /** A machine has written it, and nobody has said yet that it is read: so long it does not go out. */
  isUnread: z.boolean(),
  name: z.string().nullable(),
  alignment: z.enum(['none', 'working', 'failed', 'overtaken']),
  /** How far that is, from 0 to 1. */
  alignedShare: z.number(),
  /** Whether its times are of the audio that the episode has now. */
  fits: z.boolean(),
  hasBefore: z.boolean(),
  updatedAt: z.string(),
})
export type TranscriptSummary = z.infer<typeof transcriptSummary>

export const transcript = transcriptSummary.extend({ cues: z.array(keptCue) })
export type Transcript = z.infer<typeof transcript>

/** A transcript that was read from a file, and what there is to say of the reading. */
export const broughtTranscript = transcript.extend({ remarks: z.array(z.string()) })
export type BroughtTranscript = z.infer<typeof broughtTranscript>

export const bringQuery = z.object({
  language,
  name: z.string().trim().max(300, 'At most 300 characters.').default(''),
})

/** Takes `remove` cues away from a place on and puts others there, as `version` stood. */
export const cueChange = z.object({
  version,
  at: z.number().int('A whole number.').min(0, 'At least 0.'),
  remove: z.number().int('A whole number.').min(0, 'At least 0.'),
  insert: z.array(cue).max(mostCues, `At most ${mostCues.toLocaleString('en')} cues.`),
})
export type CueChange = z.infer<typeof cueChange>

/** What is said of a transcript rather than in it. */
export const transcriptFacts = z.object({
  version,
  language: language.optional(),
  isSpoken: z.literal(true, 'Another one is made the spoken one instead.').optional(),
  /** That its times are right for the audio as it is now. */
  fits: z.literal(true).optional(),
  /** That somebody has read it: from then on it goes out. */
  isUnread: z.literal(false, 'What was read stays read.').optional(),
})
export type TranscriptFacts = z.infer<typeof transcriptFacts>

export const fileName = z.object({ id: z.uuid(), format: z.enum(transcriptFormats) })
