import type { Stretch } from './measurement'
import type { Level, Pyramid } from './pyramid'

/** As quiet as the pause between two sentences in a room, in steps of 1/127 of full scale: about −36 dBFS. */
const quietest = 2
const leastPauseMs = 250
/** Fine enough to tell a pause from a stop within a word. */
const finestMs = 20

/** Where nobody speaks and nothing plays: stretches of a waveform in which it stays quiet for a quarter of a second or longer. */
export function pausesOf({ levels }: Pyramid): Stretch[] {
  const level = levels.find(({ stretchMs }) => stretchMs >= finestMs) ?? levels.at(-1)!
  return quietStretches(level).filter(({ fromMs, toMs }) => toMs - fromMs >= leastPauseMs)
}

function quietStretches({ stretchMs, pairs }: Level): Stretch[] {
  const found: Stretch[] = []
  let from: number | null = null
  const count = pairs.length / 2
  for (let at = 0; at <= count; at++) {
    const isQuiet = at < count && pairs[at * 2]! >= -quietest && pairs[at * 2 + 1]! <= quietest
    if (isQuiet) from ??= at
    else if (from !== null) {
      found.push({ fromMs: from * stretchMs, toMs: at * stretchMs })
      from = null
    }
  }
  return found
}

/** So long before somebody begins to speak a chapter begins. */
const breathMs = 150

/** Where one would begin after each pause: a breath before its end, or in its middle where it is short. */
export const beginningsAfter = (pauses: readonly Stretch[]): number[] =>
  pauses.map(({ fromMs, toMs }) => Math.round(Math.max((fromMs + toMs) / 2, toMs - breathMs)))
