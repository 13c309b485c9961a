import { estimatedSure } from '../doubtful'
import { align } from './timeWarping'
import { dimensions, type Features, hopMs } from './features'

/** Where something is said, and from 0 to 1 how sure that is. */
export interface Aligned {
  fromMs: number
  toMs: number
  sure: number
}

/** Where a unit stands in the script as it was spoken, who says it, and where in the sound, where somebody has said that. */
export interface Unit {
  fromMs: number
  toMs: number
  speaker: string | null
  pinnedMs: number | null
}

/**
 * Finds where each unit of a spoken script is said in a sound. Between units whose time is known everything is laid by
 * itself; before the first and behind the last the sound may have more.
 */
export function alignUnits(units: readonly Unit[], script: Features, sound: Features): Aligned[] {
  const aligned: Aligned[] = []
  const isHeard = heardIn(sound)
  for (let from = 0; from < units.length;) {
    let to = from + 1
    while (to < units.length && units[to]!.pinnedMs === null) to++
    const [first, next] = [units[from]!, units[to]]
    aligned.push(...alignStretch(units.slice(from, to), script, sound, isHeard, first.pinnedMs, next?.pinnedMs ?? null))
    from = to
  }
  return inOrder(aligned)
}

function alignStretch(
  units: readonly Unit[],
  script: Features,
  sound: Features,
  isHeard: readonly boolean[],
  beginsMs: number | null,
  endsMs: number | null,
): Aligned[] {
  const scriptFrom = frameOf(units[0]!.fromMs)
  const scriptPart = partOf(script, scriptFrom, frameOf(units.at(-1)!.toMs))
  const soundFrom = frameOf(beginsMs ?? 0)
  const soundPart = partOf(sound, soundFrom, endsMs === null ? sound.count : frameOf(endsMs))
  if (scriptPart.count < 2 || soundPart.count < 2)
    return units.map(() => ({ fromMs: beginsMs ?? 0, toMs: beginsMs ?? 0, sure: 0 }))
  const { places, alike } = align(scriptPart, soundPart, {
    isOpen: beginsMs === null,
    isOpenBehind: endsMs === null,
  })
  const last = places.length - 1
  const found = units.map(({ fromMs, toMs }) => {
    const [begin, end] = [fromMs, toMs].map(ms => Math.min(last, Math.max(0, frameOf(ms) - scriptFrom))) as [
      number,
      number,
    ]
    const count = end - begin + 1
    const [from, span] = [places[begin]!, places[end]! - places[begin]!]
    let [alikeness, bend] = [0, 0]
    for (let at = begin; at <= end; at++) {
      alikeness += alike[at]!
      bend += Math.abs(places[at]! - from - (span * (at - begin)) / Math.max(1, count - 1))
    }
    return { begin, end, count, alikeness, bendMs: (bend / count) * hopMs, stretch: (span + 1) / count }
  })
  const speakers = units.map(({ speaker }) => speaker)
  /** Those beside one that the same person says, where there are enough to tell what pace is usual; else all. */
  const alikePaced = (at: number): readonly (typeof found)[number][] => {
    const own = around(found, at, paceReach).filter(
      (_each, index) => speakers[Math.max(0, at - paceReach) + index] === speakers[at],
    )
    return own.length >= leastPaced ? own : around(found, at, paceReach)
  }
  const uneven = found.map(({ stretch, bendMs }, at) => {
    const usual = median(alikePaced(at).map(each => each.stretch))
    return Math.abs(Math.log(stretch / usual)) + bendMs / bentMs
  })
  return found.map(({ begin, end }, at) => {
    // A word or two can be alike to anything: those beside it are looked at, too.
    const beside = [found[at]!, ...around(found, at, 1)]
    const mean =
      beside.reduce((sum, each) => sum + each.alikeness, 0) / beside.reduce((sum, each) => sum + each.count, 0)
    const likely =
      between(mean, leastAlike, surelyAlike) * between(median(around(uneven, at, evenReach)), mostUneven, even)
    return {
      fromMs: Math.round(heardFrom(soundFrom + places[begin]!, soundFrom + places[end]!, isHeard) * hopMs),
      toMs: Math.round((soundFrom + places[end]! + 1) * hopMs),
      sure: Math.round((uneven[at]! > tornUneven ? likely * tornSure : likely) * 100) / 100,
    }
  })
}

/** A pause is alike to a pause, and which part of it goes with which sentence nobody can tell: a sentence begins where it is heard. */
function heardFrom(from: number, to: number, isHeard: readonly boolean[]): number {
  const most = Math.min(to, from + longestPause)
  for (let at = from; at < most; at++) if (isHeard[at] && isHeard[at + 1]) return at
  return from
}
/** In frames: what is quiet for longer is no pause before a sentence. */
const longestPause = Math.round(1200 / hopMs)

/** What is not said is alike by less, what is said by more; found by trying. */
const leastAlike = 0.3
const surelyAlike = 1
/**
 * Words of something else are alike to it, too, once they are stretched and bent enough, so alikeness alone tells nothing: who
 * really says them does so at an even pace. What is said is more even than that, what is not said is less; found by trying.
 */
const even = 0.26
const mostUneven = 0.36
/** A single one that is so uneven lies partly elsewhere. */
const tornUneven = 0.9
const tornSure = 0.4
/** So many sentences on each side say what pace is usual, and how evenly all is laid. */
const [paceReach, evenReach] = [8, 4]
const leastPaced = 4
/** Bent by so much on average, a sentence is as uneven as at 2.7 times the usual pace. */
const bentMs = 800

/** Those beside a place, up to so many on each side, and itself. */
const around = <T>(all: readonly T[], at: number, reach: number): readonly T[] =>
  all.slice(Math.max(0, at - reach), at + reach + 1)

const median = (values: readonly number[]): number => values.toSorted((one, other) => one - other)[values.length >> 1]!

/** How far a value is on the way from one to another, 0 to 1. */
const between = (value: number, from: number, to: number): number =>
  Math.min(1, Math.max(0, (value - from) / (to - from)))

const frameOf = (ms: number): number => Math.round(ms / hopMs)

function partOf({ values, levelsDb }: Features, from: number, to: number): Features {
  const [begin, end] = [Math.max(0, from), Math.min(levelsDb.length, Math.max(from, to))]
  return {
    values: values.subarray(begin * dimensions, end * dimensions),
    levelsDb: levelsDb.subarray(begin, end),
    count: Math.max(0, end - begin),
  }
}

/** Nobody begins before the one before has begun, and what goes on into the next ends with its beginning. */
function inOrder(aligned: readonly Aligned[]): Aligned[] {
  let before = 0
  return aligned.map(({ fromMs, toMs, sure }, at) => {
    const from = Math.max(before, fromMs)
    before = from
    const next = Math.max(from, aligned[at + 1]?.fromMs ?? Infinity)
    return { fromMs: from, toMs: Math.max(from + shortestMs, Math.min(toMs, next)), sure }
  })
}
const shortestMs = 200

/**
 * Where each of some texts may be said, by their length and by where the sound is not quiet; only an estimate, for languages
 * that no voice speaks.
 */
export function estimate(lengths: readonly number[], { levelsDb }: Pick<Features, 'levelsDb'>): Aligned[] {
  const isHeard = heardIn({ levelsDb })
  const heard = isHeard.filter(Boolean).length
  const letters = lengths.reduce((sum, length) => sum + length, 0)
  const frameAfter = (share: number): number => {
    let left = share * heard
    for (let at = 0; at < isHeard.length; at++) if (isHeard[at] && left-- < 1) return at
    return isHeard.length
  }
  let said = 0
  return lengths.map(length => {
    const from = frameAfter(said / letters)
    said += length
    return {
      fromMs: Math.round(from * hopMs),
      toMs: Math.round(Math.max(from + 5, frameAfter(Math.min(1, said / letters))) * hopMs),
      sure: estimatedSure,
    }
  })
}

/** Of each frame whether it is not quiet, as far as its sound has quiet and loud places. */
function heardIn({ levelsDb }: Pick<Features, 'levelsDb'>): boolean[] {
  const sorted = levelsDb.toSorted()
  const [quiet, loud] = [sorted[Math.floor(sorted.length * 0.1)] ?? 0, sorted[Math.floor(sorted.length * 0.9)] ?? 0]
  return [...levelsDb].map(level => level > quiet + (loud - quiet) * 0.35)
}
