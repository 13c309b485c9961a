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
  fadeInMs: ms,
  fadeOutMs: ms,
  shape: z.enum(crossfadeShapes),
  ducking: ducking.nullable(),
}

/** What the episodes of a show begin and end with, until one is made otherwise. */
export const usualSet = z.object({
  /** Music that the voice enters, and that goes on under it for a while. */
  opening: z.object({ ...music, aloneMs: ms, underMs: ms }).nullable(),
  /** Music that begins under the last words, and goes on behind them. */
  closing: z.object({ ...music, underMs: ms, aloneMs: ms }).nullable(),
})
export type UsualSet = z.infer<typeof usualSet>

/** Common practice, no source: the voice enters 10 to 12 s into the music; the end is a logarithmic fade under and behind the last sentence. */
export const usualTimes = {
  opening: {
    aloneMs: 11_000,
    underMs: 9_000,
    fadeInMs: 0,
    fadeOutMs: 6_000,
    shape: 'logarithmic',
    ducking: usualDucking,
  },
  closing: {
    underMs: 8_000,
    aloneMs: 12_000,
    fadeInMs: 0,
    fadeOutMs: 6_000,
    shape: 'logarithmic',
    ducking: usualDucking,
  },
} as const

/** The files that a set names. */
export const filesOfSet = ({ opening, closing }: UsualSet): string[] =>
  [opening, closing].flatMap(music => music?.fileId ?? [])

/**
 * The set by which a mix would come about again with another voice: the music before its first piece, and that which begins under
 * the end of its last one. Null where there is neither.
 */
export function usualSetOf({ pieces, beds }: MixDocument): UsualSet | null {
  const [first, last] = [pieces[0]?.id, pieces.at(-1)?.id]
  const opening = beds.find(
    ({ under, offsetFrom, offsetMs }) => under === first && offsetFrom === 'beginning' && offsetMs <= 0,
  )
  const closing = beds.find(
    ({ under, offsetFrom, offsetMs }) => under === last && offsetFrom === 'end' && offsetMs <= 0,
  )
  if (!opening && !closing) return null
  const musicOf = ({
    fileId,
    startMs,
    gainDb,
    fadeInMs,
    fadeOutMs,
    shape,
    ducking: giving,
    offsetMs,
    durationMs,
  }: Bed) => ({
    music: { fileId, startMs, gainDb, fadeInMs, fadeOutMs, shape, ducking: giving },
    before: Math.min(-offsetMs, durationMs),
    after: Math.max(0, durationMs + offsetMs),
  })
  const [begins, ends] = [opening && musicOf(opening), closing && musicOf(closing)]
  return {
    opening: begins ? { ...begins.music, aloneMs: begins.before, underMs: begins.after } : null,
    closing: ends ? { ...ends.music, underMs: ends.before, aloneMs: ends.after } : null,
  }
}

/**
 * An episode by the usual set of its show, as soon as its voice is here.
 *
 * @param voice the file with the voice, and what is kept of it
 * @param newId makes an id for each part
 */
export function mixBy(set: UsualSet, voice: { fileId: string; kept: Stretch[] }, newId: () => string): MixDocument {
  const id = newId()
  const bed = (
    { fileId, aloneMs, underMs, fadeOutMs, ...music }: NonNullable<UsualSet['opening']>,
    begins: Pick<Bed, 'offsetFrom' | 'offsetMs'>,
  ): Bed => ({
    ...newBed(newId(), fileId, id, aloneMs + underMs),
    ...begins,
    ...music,
    fadeOutMs: Math.min(fadeOutMs, aloneMs + underMs),
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
