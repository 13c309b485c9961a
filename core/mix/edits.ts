import type { Stretch } from '../audio/measurement'
import { type Bed, type MixDocument, mixVersion, type Piece, shortestMs, usualDucking } from './document'

export const emptyMix: MixDocument = { version: mixVersion, pieces: [], beds: [] }

/** A piece as it is begun: as loud as its file, directly behind the one in front of it. */
export const newPiece = (id: string, fileId: string, kept: Stretch[]): Piece => ({
  id,
  fileId,
  kept,
  gainDb: 0,
  overlapMs: 0,
  fadeInMs: 0,
  fadeOutMs: 0,
  shape: 'linear',
})

/** A bed as it is begun: from the beginning of a piece on, giving way to the voice, fading out at its end. */
export const newBed = (id: string, fileId: string, under: string, durationMs: number): Bed => ({
  id,
  fileId,
  under,
  offsetFrom: 'beginning',
  offsetMs: 0,
  durationMs,
  startMs: 0,
  gainDb: 0,
  ducking: usualDucking,
  points: [],
  fadeInMs: 0,
  fadeOutMs: Math.min(2_000, durationMs),
  shape: 'logarithmic',
})

/** The mix with one piece more, before the one at a position or behind all of them. */
export const withPiece = (mix: MixDocument, piece: Piece, position = mix.pieces.length): MixDocument => ({
  ...mix,
  pieces: mix.pieces.toSpliced(position, 0, piece),
})
export const withBed = (mix: MixDocument, bed: Bed): MixDocument => ({ ...mix, beds: [...mix.beds, bed] })

export const changedPiece = (mix: MixDocument, id: string, part: Partial<Piece>): MixDocument => ({
  ...mix,
  pieces: mix.pieces.map(piece => (piece.id === id ? { ...piece, ...part } : piece)),
})
export const changedBed = (mix: MixDocument, id: string, part: Partial<Bed>): MixDocument => ({
  ...mix,
  beds: mix.beds.map(bed => (bed.id === id ? { ...bed, ...part } : bed)),
})

/** The mix with a piece so many places further on, or back; at an end it stays there. */
export function movedPiece(mix: MixDocument, id: string, by: number): MixDocument {
  const from = mix.pieces.findIndex(piece => piece.id === id)
  const to = Math.min(Math.max(from + by, 0), mix.pieces.length - 1)
  const pieces = [...mix.pieces]
  pieces.splice(to, 0, ...pieces.splice(from, 1))
  return { ...mix, pieces }
}

/** The mix without a piece; what lay under it lies under its neighbour, and goes where there is none. */
export function withoutPiece(mix: MixDocument, id: string): MixDocument {
  const at = mix.pieces.findIndex(piece => piece.id === id)
  const neighbour = mix.pieces[at + 1] ?? mix.pieces[at - 1]
  return {
    ...mix,
    pieces: mix.pieces.filter(piece => piece.id !== id),
    beds: mix.beds.flatMap(bed => (bed.under !== id ? bed : neighbour ? { ...bed, under: neighbour.id } : [])),
  }
}
export const withoutBed = (mix: MixDocument, id: string): MixDocument => ({
  ...mix,
  beds: mix.beds.filter(bed => bed.id !== id),
})

/** What is kept of a file where its ends are put elsewhere; what was cut out between them stays so. */
export function withEnds(kept: readonly Stretch[], { fromMs, toMs }: Stretch): Stretch[] {
  const first = kept[0]!
  const last = kept.at(-1)!
  const moved = kept.map(each => ({
    fromMs: each === first ? Math.min(fromMs, each.toMs) : each.fromMs,
    toMs: each === last ? Math.max(toMs, each.fromMs) : each.toMs,
  }))
  const within = moved
    .map(each => ({ fromMs: Math.max(each.fromMs, fromMs), toMs: Math.min(each.toMs, toMs) }))
    .filter(each => each.toMs - each.fromMs >= shortestMs)
  return within.length > 0 ? within : [{ fromMs, toMs }]
}
