const dayMs = 24 * 3600_000
/** So many on each side of now are seen, as far as they lie within a year and a half. */
const [seenBehind, seenAhead] = [3, 5]
const farthestMs = 550 * dayMs
const [leastBehindMs, leastAheadMs] = [7 * dayMs, 21 * dayMs]
const edge = 0.06

/** From when to when a waterline reaches. */
export interface Reach {
  fromMs: number
  toMs: number
}

/** The stretch of time in which the last few that have gone out lie, and the next few that are to come. */
export function reachAround(now: Date, gone: readonly Date[], coming: readonly Date[]): Reach {
  const behind = gone.map(at => +now - +at).filter(ms => ms >= 0 && ms < farthestMs)
  const ahead = coming.map(at => +at - +now).filter(ms => ms >= 0 && ms < farthestMs)
  const back = Math.max(leastBehindMs, farthestOf(behind, seenBehind))
  const forth = Math.max(leastAheadMs, farthestOf(ahead, seenAhead))
  const margin = (back + forth) * edge
  return { fromMs: +now - back - margin, toMs: +now + forth + margin }
}

const farthestOf = (distances: readonly number[], most: number): number =>
  distances
    .toSorted((one, other) => one - other)
    .slice(0, most)
    .at(-1) ?? 0

/** Where in a stretch of time a moment lies, 0 to 1. */
export const shareOf = ({ fromMs, toMs }: Reach, at: Date): number => (+at - fromMs) / (toMs - fromMs)

/** On which line each of some things stands, so that none lies over another: their places in order, each so wide. */
export function lanesOf(places: readonly number[], width: number): number[] {
  const ends: number[] = []
  return places.map(place => {
    const free = ends.findIndex(end => end <= place)
    const lane = free >= 0 ? free : ends.length
    ends[lane] = place + width
    return lane
  })
}
