import type { Stretch } from '../audio/measurement'
import { timelineOf, type Timeline } from '../audio/timeline'
import type { Bed, MixDocument, Piece } from './document'

interface Placed {
  /** When it is heard first, by the clock of the mix. */
  atMs: number
  durationMs: number
}
export interface PlacedPiece extends Placed {
  piece: Piece
  /** From the clock of its file to how long it has been going on, and back. */
  timeline: Timeline
  /** For so long it and the piece before it are heard together. */
  overlapMs: number
}
export interface PlacedBed extends Placed {
  bed: Bed
}

/** When all of a mix is heard. */
export interface MixLayout {
  pieces: PlacedPiece[]
  beds: PlacedBed[]
  durationMs: number
}

/** What is kept of a file that is so long; one that has become shorter since keeps what there is. */
const within = (kept: readonly Stretch[], lengthMs: number): Stretch[] =>
  kept.flatMap(({ fromMs, toMs }) => (fromMs < lengthMs ? [{ fromMs, toMs: Math.min(toMs, lengthMs) }] : []))

/**
 * Lays a mix out: one piece after the other, each by its overlap or gap, and each bed where its piece is. A bed that begins before
 * all pieces moves them back. No overlap is longer than either of its pieces, and no three pieces are heard together.
 *
 * @param lengthOf the length of a file in ms
 */
export function layoutOf({ pieces, beds }: MixDocument, lengthOf: (fileId: string) => number): MixLayout {
  const placed: PlacedPiece[] = []
  let endMs = 0
  for (const piece of pieces) {
    const timeline = timelineOf(within(piece.kept, lengthOf(piece.fileId)))
    const { durationMs } = timeline
    const before = placed.at(-1)
    const overlapMs = before ? Math.min(piece.overlapMs, before.durationMs - before.overlapMs, durationMs) : 0
    placed.push({ piece, timeline, durationMs, overlapMs: Math.max(0, overlapMs), atMs: endMs - overlapMs })
    endMs += durationMs - overlapMs
  }
  const under = new Map(placed.map(each => [each.piece.id, each]))
  const placedBeds = beds.map(bed => {
    const { atMs, durationMs } = under.get(bed.under)!
    return { bed, atMs: atMs + (bed.offsetFrom === 'end' ? durationMs : 0) + bed.offsetMs, durationMs: bed.durationMs }
  })
  const earliestMs = Math.min(0, ...placedBeds.map(({ atMs }) => atMs))
  for (const each of [...placed, ...placedBeds]) each.atMs -= earliestMs
  const ends = [...placed, ...placedBeds].map(({ atMs, durationMs }) => atMs + durationMs)
  return { pieces: placed, beds: placedBeds, durationMs: Math.max(0, ...ends) }
}

/** When a moment of a piece's file is heard in the mix, in ms; one that was cut out, where the cut is. */
export function toMix({ pieces }: MixLayout, pieceId: string, fileMs: number): number | null {
  const placed = pieces.find(({ piece }) => piece.id === pieceId)
  return placed ? placed.atMs + placed.timeline.toDelivered(fileMs) : null
}

/** What is heard at a moment of the mix: the piece that began last, and the moment of its file; null in a gap. */
export function toPiece({ pieces }: MixLayout, mixMs: number): { piece: Piece; fileMs: number } | null {
  const placed = pieces.findLast(({ atMs, durationMs }) => mixMs >= atMs && mixMs < atMs + durationMs)
  return placed ? { piece: placed.piece, fileMs: placed.timeline.toSource(mixMs - placed.atMs) } : null
}
