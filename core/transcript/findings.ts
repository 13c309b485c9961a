import type { Stretch } from '../audio/measurement'
import { letters } from '../words/line'
import { type Cue, isTimed, type TimedCue } from './cue'
import { isDoubtful } from './doubtful'

export type CueFindingCode =
  'overlap' | 'backwards' | 'past-end' | 'empty' | 'fast' | 'long-line' | 'silent' | 'unsaid' | 'doubtful'

/** Something about a cue, or about speech that has none, which a person may want to look at. */
export interface CueFinding {
  code: CueFindingCode
  /** The cue that it is about, or behind which speech has none; null for before all of them. */
  id: string | null
  fromMs: number
}

/**
 * Reading speed and length of lines as broadcasters' published subtitle guidelines have them (from memory): 160 to 180
 * words a minute, of some six letters each, and lines of about 37 letters, two of them.
 */
const mostLettersPerSecond = 20
export const longestLineLetters = 42
const mostLines = 2
/** Of a sentence or less nobody says that it has no cue. */
const unsaidMs = 6000
const roundingMs = 50

/** What is worth a look in a transcript. `endMs` is where its sound ends, `pauses` where nobody speaks; null while they are not known. */
export function cueFindings(
  cues: readonly Cue[],
  endMs: number | null,
  pauses: readonly Stretch[] | null,
): CueFinding[] {
  const found: CueFinding[] = []
  const timed = cues.filter(isTimed)
  const say = (code: CueFindingCode, { id, fromMs }: Pick<TimedCue, 'id' | 'fromMs'>): void => {
    found.push({ code, id, fromMs })
  }
  const quiet = new Quiet(pauses ?? [])
  timed.forEach((cue, at) => {
    const before = timed[at - 1]
    const length = cue.toMs - cue.fromMs
    if (cue.text.trim() === '') say('empty', cue)
    if (length <= 0 || (before && cue.fromMs < before.fromMs)) say('backwards', cue)
    else if (before && cue.fromMs < before.toMs - roundingMs) say('overlap', cue)
    if (endMs !== null && cue.toMs > endMs + roundingMs) say('past-end', cue)
    if (length > 0 && letters(cue.text) / (length / 1000) > mostLettersPerSecond) say('fast', cue)
    if (isTooLong(cue)) say('long-line', cue)
    if (pauses && length > 0 && quiet.within(cue.fromMs, cue.toMs) > length * 0.9) say('silent', cue)
    if (isDoubtful(cue)) say('doubtful', cue)
  })
  if (pauses && endMs !== null) found.push(...unsaid(timed, endMs, quiet))
  return found
}

function isTooLong({ text }: Cue): boolean {
  const lines = text.split('\n')
  // A text that is not broken into lines is broken by whoever shows it.
  if (lines.length === 1) return letters(text) > longestLineLetters * mostLines
  return lines.length > mostLines || lines.some(line => letters(line) > longestLineLetters)
}

/** Long stretches without a cue in which somebody speaks, or something plays. */
function unsaid(timed: readonly TimedCue[], endMs: number, quiet: Quiet): CueFinding[] {
  const found: CueFinding[] = []
  let [saidToMs, id]: [number, string | null] = [0, null]
  for (const cue of [...timed.toSorted((one, other) => one.fromMs - other.fromMs), null]) {
    const nextMs = cue?.fromMs ?? endMs
    if (nextMs - saidToMs - quiet.within(saidToMs, nextMs) > unsaidMs)
      found.push({ code: 'unsaid', id, fromMs: saidToMs })
    if (cue && cue.toMs > saidToMs) [saidToMs, id] = [cue.toMs, cue.id]
  }
  return found
}

/** How much of a stretch is quiet, asked many times. */
class Quiet {
  private readonly stretches: readonly Stretch[]
  constructor(pauses: readonly Stretch[]) {
    this.stretches = pauses
  }

  within(fromMs: number, toMs: number): number {
    let [low, high] = [0, this.stretches.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.stretches[middle]!.toMs <= fromMs) low = middle + 1
      else high = middle
    }
    let sum = 0
    for (let at = low; at < this.stretches.length && this.stretches[at]!.fromMs < toMs; at++) {
      const { fromMs: begin, toMs: end } = this.stretches[at]!
      sum += Math.min(end, toMs) - Math.max(begin, fromMs)
    }
    return sum
  }
}
