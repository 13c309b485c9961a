import type { Stretch } from '../audio/measurement'
import type { Bed } from './document'

/** Where music goes on from its beginning it is crossfaded into itself for so long, or for a quarter of it where it is short. */
const loopMs = 1_000

/** How long a turn of a bed is in a file that is so long, and for how much of it the next is heard, too, in ms. */
export function turnOf({ startMs }: Pick<Bed, 'startMs'>, fileMs: number): { turnMs: number; crossMs: number } {
  const turnMs = Math.max(0, fileMs - startMs)
  return { turnMs, crossMs: Math.min(loopMs, turnMs / 4) }
}

/** What of its file a bed is heard to be, turn after turn, each until the next begins. */
export function turnsOf(bed: Pick<Bed, 'startMs' | 'durationMs'>, fileMs: number): Stretch[] {
  const { turnMs, crossMs } = turnOf(bed, fileMs)
  const turns: Stretch[] = []
  for (let doneMs = 0; turnMs > 0 && doneMs < bed.durationMs; doneMs += turnMs - crossMs) {
    const isLast = doneMs + turnMs >= bed.durationMs
    const heardMs = isLast ? bed.durationMs - doneMs : turnMs - crossMs
    turns.push({ fromMs: bed.startMs, toMs: bed.startMs + heardMs })
    if (isLast) break
  }
  return turns
}
