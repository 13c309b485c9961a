import { z } from 'zod'
import { crossfadeShapes } from '../audio/fades'

/** A document of a higher version is of a newer house, and is not touched. */
export const mixVersion = 1

const longestMs = 24 * 3600_000
/** What a mix comes to at most. */
export const longestMixMs = longestMs
const mostPieces = 300
const mostBeds = 100
const mostStretches = 5_000
const mostPoints = 1_000
/** Less is a click, and no sound. */
export const shortestMs = 10

const ms = z.number().min(0).max(longestMs)
const gainDb = z.number().min(-60).max(24)
const fades = { fadeInMs: ms, fadeOutMs: ms, shape: z.enum(crossfadeShapes) }

const stretch = z
  .object({ fromMs: ms, toMs: ms })
  .refine(({ fromMs, toMs }) => toMs - fromMs >= shortestMs, `A stretch that is kept lasts ${shortestMs} ms at least.`)

/** A file in the row of pieces, or what of it is kept. */
const piece = z.object({
  id: z.uuid(),
  fileId: z.uuid(),
  kept: z
    .array(stretch)
    .min(1)
    .max(mostStretches)
    .refine(
      kept => kept.every(({ fromMs }, n) => n === 0 || fromMs >= kept[n - 1]!.toMs),
      'Stretches that are kept stand in order and do not overlap.',
    ),
  gainDb,
  /** By how much it begins before the piece in front of it ends, where the two are crossfaded; below 0 for a gap. */
  overlapMs: z.number().min(-longestMs).max(longestMs),
  ...fades,
})
export type Piece = z.infer<typeof piece>

/** How a bed gives way to the pieces: by as much as they are over the threshold, and by no more than the depth. */
export const ducking = z.object({
  thresholdDb: z.number().min(-80).max(0),
  depthDb: z.number().min(0).max(60),
  attackMs: z.number().min(1).max(1_000),
  releaseMs: z.number().min(1).max(5_000),
  /** So long before the voice the bed begins to go down. */
  lookaheadMs: z.number().min(0).max(1_000),
})
export type Ducking = z.infer<typeof ducking>

/** Music under the pieces. */
const bed = z.object({
  id: z.uuid(),
  fileId: z.uuid(),
  /** The piece that it goes along with, wherever that is moved. */
  under: z.uuid(),
  /** Which end of that piece its beginning is counted from: music that closes goes with the end, wherever that is cut. */
  offsetFrom: z.enum(['beginning', 'end']),
  /** When it begins, counted from there; below 0 for before. */
  offsetMs: z.number().min(-longestMs).max(longestMs),
  durationMs: z.number().min(shortestMs).max(longestMs),
  /** Where in its file it begins; where the file ends too soon it goes on from there. */
  startMs: ms,
  gainDb,
  ducking: ducking.nullable(),
  /** A line of gains over its time; before the first and after the last point it is level. */
  points: z
    .array(z.object({ atMs: ms, gainDb }))
    .max(mostPoints)
    .refine(
      points => points.every(({ atMs }, n) => n === 0 || atMs >= points[n - 1]!.atMs),
      'Points of a line stand in the order of their times.',
    ),
  ...fades,
})
export type Bed = z.infer<typeof bed>

const areDistinct = (parts: readonly { id: string }[]): boolean =>
  new Set(parts.map(({ id }) => id)).size === parts.length

/** What an episode is put together of: pieces one after the other, and beds under them. It names files; it changes none. */
export const mixDocument = z
  .object({
    version: z.literal(mixVersion),
    pieces: z.array(piece).max(mostPieces).refine(areDistinct, 'Each piece has an id of its own.'),
    beds: z.array(bed).max(mostBeds).refine(areDistinct, 'Each bed has an id of its own.'),
  })
  .refine(({ pieces, beds }) => beds.every(({ under }) => pieces.some(({ id }) => id === under)), {
    path: ['beds'],
    message: 'A bed lies under a piece of the same mix.',
  })
export type MixDocument = z.infer<typeof mixDocument>

/** What is read: also the document of a newer house, of which only the version is understood. */
export const keptMix = z.union([
  mixDocument,
  z.looseObject({ version: z.number().gt(mixVersion) }),
]) as z.ZodType<MixDocument>

export const isOfNewerHouse = ({ version }: { version: number }): boolean => version > mixVersion

/** The files that a mix names, each once. */
export const filesOfMix = (mix: MixDocument): string[] =>
  isOfNewerHouse(mix) ? [] : [...new Set([...mix.pieces, ...mix.beds].map(({ fileId }) => fileId))]

/** Common practice, no source: the music goes 15 dB down under a voice. */
export const usualDucking: Ducking = { thresholdDb: -45, depthDb: 15, attackMs: 120, releaseMs: 900, lookaheadMs: 200 }
