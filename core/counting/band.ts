/** What most of some figures lie between: the middle half of them. */
export interface Band {
  low: number
  high: number
  /** Of how many figures. */
  of: number
}

/** Fewer say nothing of what is usual. */
const fewest = 3

/** The first and the third quartile, between two figures by their distance (type 7 of Hyndman and Fan, 1996); null where there are fewer than three figures. */
export function bandOf(figures: readonly number[]): Band | null {
  if (figures.length < fewest) return null
  const sorted = figures.toSorted((one, other) => one - other)
  const at = (share: number): number => {
    const place = (sorted.length - 1) * share
    const [below, above] = [sorted[Math.floor(place)]!, sorted[Math.ceil(place)]!]
    return Math.round(below + (above - below) * (place % 1))
  }
  return { low: at(0.25), high: at(0.75), of: sorted.length }
}
