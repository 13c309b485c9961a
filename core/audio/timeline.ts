import type { Stretch } from './measurement'

/** The clock of a sound that is delivered, against that of the source that it was cut from. */
export interface Timeline {
  /** What of the source is delivered, without the ends, in order, one directly after the other. */
  readonly kept: readonly Stretch[]
  readonly durationMs: number
  /** Where a moment of the source is heard, in ms; one that was cut out, where it would have been. */
  toDelivered(sourceMs: number): number
  /** Which moment of the source is heard then, in ms; behind the end, that of the end. */
  toSource(deliveredMs: number): number
  /** Whether a moment of the source is delivered. */
  keeps(sourceMs: number): boolean
}

/** The timeline of what is left of a source after any cuts. The stretches stand in order and do not overlap. */
export function timelineOf(kept: readonly Stretch[]): Timeline {
  const length = ({ fromMs, toMs }: Stretch): number => Math.max(0, toMs - fromMs)
  return {
    kept,
    durationMs: kept.reduce((sum, each) => sum + length(each), 0),
    toDelivered: sourceMs =>
      kept.reduce((sum, { fromMs, toMs }) => sum + Math.max(0, Math.min(sourceMs, toMs) - fromMs), 0),
    toSource(deliveredMs) {
      let leftMs = Math.max(0, deliveredMs)
      for (const each of kept) {
        if (leftMs < length(each)) return each.fromMs + leftMs
        leftMs -= length(each)
      }
      return kept.at(-1)?.toMs ?? 0
    },
    keeps: sourceMs => kept.some(({ fromMs, toMs }) => sourceMs >= fromMs && sourceMs < toMs),
  }
}

/** The timeline of a sound that begins at a moment of its source and is so long. */
export const oneCut = (fromMs: number, durationMs: number): Timeline =>
  timelineOf([{ fromMs, toMs: fromMs + durationMs }])
