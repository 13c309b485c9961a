import type { Measurement } from './measurement'

/** The edges of silence in a sound: where one would cut. */
export function cuttingPlaces({ headSilenceMs, tailSilenceMs, durationMs, gaps }: Measurement): number[] {
  return [
    0,
    headSilenceMs,
    ...gaps.flatMap(({ fromMs, toMs }) => [fromMs, toMs]),
    durationMs - tailSilenceMs,
    durationMs,
  ]
}

/** The nearest of the places where that lies within reach, else the moment itself. */
export function snapped(ms: number, places: readonly number[], reachMs: number): number {
  const nearest = places.reduce((best, place) => (Math.abs(place - ms) < Math.abs(best - ms) ? place : best), Infinity)
  return Math.abs(nearest - ms) <= reachMs ? nearest : ms
}
