import { type MixLayout, type PlacedPiece, toPiece } from './layout'

/** What a sound was before it was mixed anew: another mix, or a file. */
export type Before = MixLayout | { fileId: string }

/**
 * From the clock of a sound to that of a mix that takes its place, in ms: with the piece in which a moment is heard, wherever that
 * is now; what was cut out goes to the cut, music alone stays as far from the piece that it leads to, and what was in a piece that is gone
 * to the next that was behind it. Null where nothing of the sound is in the mix.
 */
export function movedTo(before: Before, { pieces, durationMs }: MixLayout): (ms: number) => number | null {
  const byId = new Map(pieces.map(placed => [placed.piece.id, placed]))
  const keeping = (fileId: string, fileMs: number): PlacedPiece | undefined =>
    pieces.find(({ piece, timeline }) => piece.fileId === fileId && timeline.keeps(fileMs))
  const at = ({ atMs, timeline }: PlacedPiece, fileMs: number): number => atMs + timeline.toDelivered(fileMs)

  if ('fileId' in before) {
    const any = pieces.find(({ piece }) => piece.fileId === before.fileId)
    return ms => {
      const placed = keeping(before.fileId, ms) ?? any
      return placed ? at(placed, ms) : null
    }
  }
  if (
    !before.pieces.some(({ piece }) => byId.has(piece.id) || pieces.some(other => other.piece.fileId === piece.fileId))
  )
    return () => null
  return ms => {
    const heard = toPiece(before, ms)
    if (heard) {
      const own = byId.get(heard.piece.id)
      const placed = own?.timeline.keeps(heard.fileMs) ? own : (keeping(heard.piece.fileId, heard.fileMs) ?? own)
      if (placed) return at(placed, heard.fileMs)
    }
    const next = before.pieces.find(({ piece, atMs }) => atMs >= ms && byId.has(piece.id))
    if (next) return Math.max(0, byId.get(next.piece.id)!.atMs - (heard ? 0 : next.atMs - ms))
    const last = before.pieces.findLast(({ piece }) => byId.has(piece.id))
    if (!last || heard) return durationMs
    const { atMs, durationMs: length } = byId.get(last.piece.id)!
    return Math.min(durationMs, atMs + length + ms - last.atMs - last.durationMs)
  }
}
