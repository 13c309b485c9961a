import type { Cue } from './cue'

/** What makes one list of cues another: so many taken away from a place on, and others put there. */
export interface Splice {
  at: number
  remove: number
  insert: Cue[]
}

/** The shortest single splice between two lists whose unchanged cues are the same objects; null where nothing differs. */
export function spliceBetween(before: readonly Cue[], after: readonly Cue[]): Splice | null {
  let at = 0
  while (at < before.length && at < after.length && before[at] === after[at]) at++
  let behind = 0
  const most = Math.min(before.length, after.length) - at
  while (behind < most && before[before.length - 1 - behind] === after[after.length - 1 - behind]) behind++
  const remove = before.length - at - behind
  const insert = after.slice(at, after.length - behind)
  return remove === 0 && insert.length === 0 ? null : { at, remove, insert }
}

export const spliced = (cues: readonly Cue[], { at, remove, insert }: Splice): Cue[] => [
  ...cues.slice(0, at),
  ...insert,
  ...cues.slice(at + remove),
]

/**
 * Brings together what two windows made of the same cues. A cue that both changed, to different things, stays as it is
 * here, and theirs is told; one that only they changed, took away or made is as they have it.
 */
export function mergeCues(
  base: readonly Cue[],
  mine: readonly Cue[],
  theirs: readonly Cue[],
): { cues: Cue[]; lost: Cue[] } {
  const [bases, theirOnes, mineOnes] = [base, theirs, mine].map(cues => new Map(cues.map(cue => [cue.id, cue])))
  const same = (one: Cue | undefined, other: Cue | undefined): boolean => JSON.stringify(one) === JSON.stringify(other)
  const lost: Cue[] = []
  const cues = mine.flatMap(cue => {
    const [was, other] = [bases!.get(cue.id), theirOnes!.get(cue.id)]
    if (same(cue, was)) return other ? [other] : []
    if (other && was && !same(other, was) && !same(other, cue)) lost.push(other)
    return [cue]
  })
  // What they made stands behind the cue that it stands behind there.
  theirs.forEach((cue, index) => {
    if (bases!.has(cue.id) || mineOnes!.has(cue.id)) return
    const before = theirs[index - 1]?.id
    cues.splice(before === undefined ? 0 : cues.findIndex(({ id }) => id === before) + 1, 0, cue)
  })
  return { cues, lost }
}
