import { z } from 'zod'
import type { Finding } from '@core/audio/findings'
import { keptMix } from '@core/mix/document'
import { severities } from '@core/words/severity'
import { encodingNames, fadeShapes, oneChannels } from '@core/audio/recipe'

const ms = z.number().int('Whole milliseconds.').min(0, 'Not before the beginning.').max(86_400_000, 'At most a day.')

/** How a source is finished; see core/audio/recipe. */
export const recipe = z.object({
  fromMs: ms.nullable(),
  toMs: ms.nullable(),
  fadeInMs: ms.max(60_000, 'At most a minute.'),
  fadeOutMs: ms.max(60_000, 'At most a minute.'),
  fadeShape: z.enum(fadeShapes),
  levelling: z.number().min(0, 'From 0 (leave).').max(1, 'To 1 (even).'),
  toTarget: z.boolean(),
  targetLufs: z.number().min(-30, 'At least −30 LUFS.').max(-8, 'At most −8 LUFS.'),
  ceilingDbtp: z.number().min(-9, 'At least −9 dBTP.').max(0, 'At most 0 dBTP.'),
  encoding: z.enum(encodingNames),
  oneChannel: z.enum(oneChannels),
})

/** The recipe a show begins each episode with: the ends are each episode's own. */
export const usualRecipe = recipe.extend({ fromMs: z.null(), toMs: z.null() })

export const stretch = z.object({ fromMs: z.number(), toMs: z.number() })

/** What was measured; see core/audio/measurement. */
export const measurement = z.object({
  durationMs: z.number(),
  sampleRateHz: z.number(),
  channels: z.number(),
  integratedLufs: z.number().nullable(),
  rangeLu: z.number(),
  momentaryMaxLufs: z.number().nullable(),
  shortTermMaxLufs: z.number().nullable(),
  truePeakDbtp: z.number().nullable(),
  samplePeakDbfs: z.number().nullable(),
  clips: z.array(stretch),
  clipCount: z.number(),
  headSilenceMs: z.number(),
  tailSilenceMs: z.number(),
  gaps: z.array(stretch),
  image: z.enum(['mono', 'stereo', 'dual mono', 'one side only', 'antiphase', 'surround']),
})

/** What was found in a sound; which figures it has depends on its code, see core/audio/findings. */
const finding = z.object({
  severity: z.enum(severities),
  code: z.string(),
  figures: z.record(z.string(), z.union([z.number(), z.string(), z.boolean(), z.null()])),
  fix: z.enum(['finish', 'trim', 'level', 'mono', 'one side']).nullable(),
  places: z.array(stretch),
}) as unknown as z.ZodType<Finding>

/** What the machine found out about a file. */
export const audioFile = z.object({
  id: z.string(),
  name: z.string(),
  fingerprint: z.string(),
  bytes: z.number(),
  type: z.string(),
  durationMs: z.number(),
  codec: z.string(),
  bitRateBps: z.number(),
  sampleRateHz: z.number(),
  channels: z.number(),
  origin: z.enum(['upload', 'finish', 'elsewhere', 'mix']),
  /** Where it lives, when that is elsewhere. */
  address: z.string().nullable(),
  tags: z.object({
    title: z.string().nullable(),
    artist: z.string().nullable(),
    album: z.string().nullable(),
    track: z.number().nullable(),
    year: z.number().nullable(),
  }),
  pictureAddress: z.string().nullable(),
  measuring: z.enum(['waiting', 'done', 'failed']),
  measurement: measurement.nullable(),
  chapters: z.array(z.object({ fromMs: z.number(), title: z.string() })),
  /** Where the studio plays it from; with sign-in. */
  playAddress: z.string(),
  waveformAddress: z.string(),
  /** Where its sound is decoded from any moment. */
  framesAddress: z.string(),
})
export type AudioFile = z.infer<typeof audioFile>

/** How far a job on an episode's sound is. */
export const work = z.object({
  kind: z.enum(['measuring', 'finishing']),
  progress: z.number(),
  secondsLeft: z.number().nullable(),
})

export const words = z.object({ title: z.string(), detail: z.string(), todo: z.string() })

/** An upload that is not an audio file yet, or will not become one. */
export const upload = z.object({
  id: z.string(),
  fileName: z.string(),
  bytes: z.number(),
  state: z.enum(['receiving', 'reading', 'done', 'refused']),
  refusal: words.nullable(),
})
export type Upload = z.infer<typeof upload>

/** An episode's sound on its way from source to delivered file. */
export const sound = z.object({
  /** Grows with source, recipe and what comes of them. Measuring does not change it. */
  version: z.number(),
  source: audioFile.nullable(),
  /** The pieces and beds that the source was made of; null where it is a file. */
  taken: keptMix.nullable(),
  /** The files that the episode is put together of, as far as they are on the shelf. */
  parts: z.array(audioFile),
  /** What is on its way to be a part of it, or will not become one. */
  arriving: z.array(upload),
  /** Other episodes of the show with the very same source. */
  alsoIn: z.array(z.object({ id: z.string(), title: z.string(), number: z.number().nullable() })),
  /** Null: the source goes out as it was uploaded. */
  recipe: recipe.nullable(),
  /** What the show's usual recipe comes to for this source. */
  usual: recipe,
  finishing: z.enum(['none', 'working', 'done', 'failed']),
  problem: words.nullable(),
  finished: audioFile.nullable(),
  report: z
    .object({
      gainDb: z.number(),
      limitedByDb: z.number(),
      reductionsDb: z.array(z.number()),
      /** By how much the loudness lies over the target (under it, where negative), because the ceiling was kept. */
      missedByLu: z.number(),
    })
    .nullable(),
  /** The finished file's tags say something else than is written by now. */
  tagsAreOld: z.boolean(),
  work: work.nullable(),
  /** Of the file that would go out now; of the source while that is not finished. */
  findings: z.array(finding),
  /** Loudness as heard (one channel counts 3 LU more) of this episode and the last ten before it, oldest first. */
  company: z.array(z.object({ id: z.string(), title: z.string(), number: z.number().nullable(), lufs: z.number() })),
})
export type Sound = z.infer<typeof sound>

export const elsewhere = z.object({
  address: z.string().min(1, 'The address of the file.').max(2000, 'At most 2,000 characters.'),
})

/** A version that a window has seen. */
export const version = z.int32('A whole number.').min(0, 'At least 0.')

export const recipeChange = z.object({ version, recipe: recipe.nullable() })
export const finishRequest = z.object({ version, recipe })
/** The text with the pieces and beds that become the sound, and the sound that they take the place of, as a window has seen them. */
export const mixTaken = z.object({ version, soundVersion: version })
