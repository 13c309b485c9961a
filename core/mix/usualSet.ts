import { z } from 'zod'
import { crossfadeShapes } from '../audio/fades'
import type { Stretch } from '../audio/measurement'
import { type Bed, ducking, type MixDocument, mixVersion, usualDucking } from './document'
import { newBed, newPiece } from './edits'

const ms = z.number().min(0).max(3600_000)
const music = {
  fileId: z.uuid(),
  /** Where in its file it begins. */
  startMs: ms,
  gainDb: z.number().min(-60).max(24),
  fadeOutMs: ms,
  shape: z.enum(crossfadeShapes),
}

/** What the episodes of a show begin and end with, until one is made otherwise. */
export const usualSet = z.object({
  /** Music that the voice enters, and that goes on under it for a while. */
  opening: z.object({ ...music, aloneMs: ms, underMs: ms }).nullable(),
  /** Music that begins under the last words, and goes on behind them. */
  closing: z.object({ ...music, underMs: ms, aloneMs: ms }).nullable(),
  ducking,
})
export type UsualSet = z.infer<typeof usualSet>

/** Common practice, no source: the voice enters 10 to 12 s into the music; the end is a logarithmic fade under and behind the last sentence. */
export const usualTimes = {
  opening: { aloneMs: 11_000, underMs: 9_000, fadeOutMs: 6_000, shape: 'logarithmic' },
  closing: { underMs: 8_000, aloneMs: 12_000, fadeOutMs: 6_000, shape: 'logarithmic' },
  ducking: usualDucking,
} as const

/**
 * An episode by the usual set of its show, as soon as its voice is here.
 *
 * @param voice the file with the voice, and what is kept of it
 * @param newId makes an id for each part
 */
export function mixBy(set: UsualSet, voice: { fileId: string; kept: Stretch[] }, newId: () => string): MixDocument {
  const id = newId()
  const bed = (
    { fileId, startMs, gainDb, fadeOutMs, shape, aloneMs, underMs }: NonNullable<UsualSet['opening']>,
    begins: Pick<Bed, 'offsetFrom' | 'offsetMs'>,
  ): Bed => ({
    ...newBed(newId(), fileId, id, aloneMs + underMs),
    ...begins,
    startMs,
    gainDb,
    ducking: set.ducking,
    fadeOutMs: Math.min(fadeOutMs, aloneMs + underMs),
    shape,
  })
  return {
    version: mixVersion,
    pieces: [newPiece(id, voice.fileId, voice.kept)],
    beds: [
      ...(set.opening ? [bed(set.opening, { offsetFrom: 'beginning', offsetMs: -set.opening.aloneMs })] : []),
      ...(set.closing ? [bed(set.closing, { offsetFrom: 'end', offsetMs: -set.closing.underMs })] : []),
    ],
  }
}
