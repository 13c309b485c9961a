const minuteMs = 60_000
const hourMs = 60 * minuteMs
const dayMs = 24 * hourMs

/** How long states of an episode are kept. */
export const historyMs = 90 * dayMs

/** Of states up to an age, the last one of each person in each stretch stays; the youngest all stay. */
const stretches = [
  { upToMs: hourMs, stretchMs: 0 },
  { upToMs: dayMs, stretchMs: 10 * minuteMs },
  { upToMs: 7 * dayMs, stretchMs: hourMs },
  { upToMs: historyMs, stretchMs: dayMs },
] as const

/** A kept state, as far as it matters for whether it stays. */
export interface Stamp {
  id: string
  atMs: number
  by: string | null
  /** It went out, so it stays as long as any. */
  isSent: boolean
}

/** Which states go, of some that are ordered newest first: the newest always stays, and what went out, for as long as any is kept. */
export function superfluous(states: readonly Stamp[], nowMs: number): Set<string> {
  const taken = new Set<string>()
  const going = new Set<string>()
  for (const [index, { id, atMs, by, isSent }] of states.entries()) {
    const rule = stretches.find(({ upToMs }) => nowMs - atMs < upToMs)
    if (index === 0) continue
    if (!rule) going.add(id)
    else if (!isSent && rule.stretchMs > 0) {
      const place = `${by} ${rule.stretchMs} ${Math.floor(atMs / rule.stretchMs)}`
      if (taken.has(place)) going.add(id)
      taken.add(place)
    }
  }
  return going
}

/** So many letters less in one field, and the fuller state is kept beside the new one. */
const muchLess = 60

/** Whether a state may be put in the place of the one before it by the same person: within a minute, where little is lost by it. */
export const mayReplace = (
  before: Pick<Stamp, 'atMs' | 'by' | 'isSent'>,
  now: Pick<Stamp, 'atMs' | 'by'>,
  lostLetters: number,
): boolean =>
  !before.isSent &&
  before.by === now.by &&
  Math.floor(before.atMs / minuteMs) === Math.floor(now.atMs / minuteMs) &&
  lostLetters < muchLess
