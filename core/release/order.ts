/** An episode as far as its place among the others matters. */
export interface Placed {
  id: string
  title: string
  number: number | null
  season: number | null
  kind: 'full' | 'trailer' | 'bonus'
  at: Date
}

/** What is wrong with the order of a show's episodes. */
export interface OrderFinding<E extends Placed = Placed> {
  /** Of two the lower number has the later date; or several have one moment, which apps show in any order. */
  kind: 'out of order' | 'same moment'
  /** Out of order: the lower number, then the next higher one that is dated before it. */
  episodes: readonly E[]
  /** Those that change dates with each other, or move apart, when it is mended. */
  fix: readonly E[]
}

const minuteMs = 60_000

/**
 * What of a show's episodes, released and to come, stands in another order by date than by season and number, and what goes out
 * in the same minute: how many findings, and the first of them. Only full episodes are counted by number.
 */
export function orderFindings<E extends Placed>(
  episodes: readonly E[],
  most = Infinity,
): { total: number; findings: OrderFinding<E>[] } {
  const byDate = episodes.toSorted((one, other) => +one.at - +other.at || one.id.localeCompare(other.id))
  const numbered = byDate.filter(({ kind, number }) => kind === 'full' && number !== null)
  const late = lateOnes(numbered)
  const together = sameMoments(byDate)
  const findings = [
    ...late.slice(0, most).map(at => outOfOrder(numbered, at)),
    ...together.map(group => ({ kind: 'same moment' as const, episodes: group, fix: group })),
  ]
  return { total: late.length + together.length, findings: findings.slice(0, most) }
}

/** The places, in the order of their dates, of those that have a lower number than one before them. */
function lateOnes(numbered: readonly Placed[]): number[] {
  let highest = -Infinity
  return numbered.flatMap((episode, at) => {
    const isLate = placeOf(episode) < highest
    highest = Math.max(highest, placeOf(episode))
    return isLate ? [at] : []
  })
}

/** All that are dated between the first of a higher number and the late one change places, else others would be late then. */
function outOfOrder<E extends Placed>(numbered: readonly E[], at: number): OrderFinding<E> {
  const late = numbered[at]!
  const before = numbered.slice(0, at).filter(episode => placeOf(episode) > placeOf(late))
  const next = before.reduce((lowest, episode) => (placeOf(episode) < placeOf(lowest) ? episode : lowest))
  return { kind: 'out of order', episodes: [late, next], fix: numbered.slice(numbered.indexOf(before[0]!), at + 1) }
}

/** Seasons count first; what has none stands by its number alone, before those that have one. */
const placeOf = ({ season, number }: Placed): number => (season ?? 0) * 1e6 + number!

function sameMoments<E extends Placed>(byDate: readonly E[]): E[][] {
  const groups = new Map<number, E[]>()
  for (const episode of byDate) {
    const minute = Math.floor(+episode.at / minuteMs)
    const group = groups.get(minute)
    if (group) group.push(episode)
    else groups.set(minute, [episode])
  }
  return [...groups.values()].filter(group => group.length > 1)
}
