import type { Stretch } from '../audio/measurement'
import type { Pyramid } from '../audio/pyramid'
import { shortestMs } from './document'

/** What is kept of a file once a stretch of it is cut out; what would be left too short to be heard goes with it. */
export const without = (kept: readonly Stretch[], { fromMs, toMs }: Stretch): Stretch[] =>
  kept
    .flatMap(each => [
      { fromMs: each.fromMs, toMs: Math.min(each.toMs, fromMs) },
      { fromMs: Math.max(each.fromMs, toMs), toMs: each.toMs },
    ])
    .filter(each => each.toMs - each.fromMs >= shortestMs)

/** What is kept once a stretch is brought back, whether all of it, a part or nothing had been cut out. */
export function withAgain(kept: readonly Stretch[], stretch: Stretch): Stretch[] {
  const all = [...kept, stretch].toSorted((one, other) => one.fromMs - other.fromMs)
  const joined: Stretch[] = []
  for (const { fromMs, toMs } of all) {
    const last = joined.at(-1)
    if (last && fromMs <= last.toMs) last.toMs = Math.max(last.toMs, toMs)
    else joined.push({ fromMs, toMs })
  }
  return joined
}

/** What has been cut out of a file between what is kept of it. */
export const cutsIn = (kept: readonly Stretch[]): Stretch[] =>
  kept.slice(1).map(({ fromMs }, n) => ({ fromMs: kept[n]!.toMs, toMs: fromMs }))

/**
 * What goes so that no silence that is heard is longer than was chosen: of each that is, its middle, since a voice fades into it
 * and begins out of it.
 */
export const shortenings = (kept: readonly Stretch[], silences: readonly Stretch[], longestMs: number): Stretch[] =>
  kept.flatMap(each =>
    silences.flatMap(silence => {
      const fromMs = Math.max(each.fromMs, silence.fromMs) + longestMs / 2
      const toMs = Math.min(each.toMs, silence.toMs) - longestMs / 2
      return toMs - fromMs >= shortestMs ? [{ fromMs, toMs }] : []
    }),
  )

/** What is struck is cut at the quietest place no further from where a word was found to begin or end. */
const reachMs = 120
/** Shorter parts of a waveform are quiet at each turn of a wave. */
const finestMs = 8

/** A stretch that was struck as it is cut: from the quietest place near its beginning to that near its end. */
export function cutOf({ fromMs, toMs }: Stretch, pyramid: Pyramid): Stretch {
  const middleMs = (fromMs + toMs) / 2
  return {
    fromMs: quietestIn(pyramid, { fromMs: fromMs - reachMs, toMs: Math.min(fromMs + reachMs, middleMs) }, fromMs),
    toMs: quietestIn(pyramid, { fromMs: Math.max(toMs - reachMs, middleMs), toMs: toMs + reachMs }, toMs),
  }
}

/** The middle of the quietest part of a waveform within a stretch; of several that are alike the one nearest to a moment, and that moment where there is none. */
export function quietestIn({ levels, durationMs }: Pyramid, { fromMs, toMs }: Stretch, nearMs: number): number {
  const { stretchMs, pairs } = levels.find(level => level.stretchMs >= finestMs) ?? levels.at(-1)!
  const first = Math.max(0, Math.ceil(fromMs / stretchMs))
  const end = Math.min(pairs.length / 2, Math.floor(Math.min(toMs, durationMs) / stretchMs))
  let [best, bestPeak] = [nearMs, Infinity]
  for (let at = first; at < end; at++) {
    const peak = Math.max(Math.abs(pairs[at * 2]!), Math.abs(pairs[at * 2 + 1]!))
    const ms = (at + 0.5) * stretchMs
    if (peak > bestPeak || (peak === bestPeak && Math.abs(ms - nearMs) >= Math.abs(best - nearMs))) continue
    best = ms
    bestPeak = peak
  }
  return best
}
