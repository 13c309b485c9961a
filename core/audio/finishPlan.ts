import type { FinishPlan } from './finisher'
import type { Measurement } from './measurement'
import { encodingOf, type Recipe, targetFor } from './recipe'

/** Silence that stays at each end when it is trimmed. */
const keptHeadMs = 250
const keptTailMs = 1_000

/** A cut in the midst of a sound begins and ends softly, whatever stands there on either side. */
const cutFadeMs = 5

/** Where to cut so that the silence at the ends goes, with a breath of it left; null where there is none to speak of. */
export function trimOf({ headSilenceMs, tailSilenceMs, durationMs }: Measurement): {
  fromMs: number | null
  toMs: number | null
} {
  if (headSilenceMs >= durationMs) return { fromMs: null, toMs: null }
  return {
    fromMs: headSilenceMs > keptHeadMs * 2 ? Math.round(headSilenceMs - keptHeadMs) : null,
    toMs: tailSilenceMs > keptTailMs * 1.5 ? Math.round(durationMs - tailSilenceMs + keptTailMs) : null,
  }
}

/** A recipe worked out as far as the source's measurement tells: everything but gain and limiting. */
export function planBeforeGain(recipe: Recipe, source: Measurement): FinishPlan {
  const { sampleRateHz, channels } = encodingOf(recipe)
  const frames = (ms: number): number => Math.round((ms / 1000) * sampleRateHz)
  const toMs = Math.min(recipe.toMs ?? source.durationMs, source.durationMs)
  return {
    sampleRateHz,
    channels,
    fromFrame: frames(recipe.fromMs ?? 0),
    toFrame: frames(toMs),
    fades: {
      inFrames: frames(Math.max(recipe.fadeInMs, recipe.fromMs === null ? 0 : cutFadeMs)),
      outFrames: frames(Math.max(recipe.fadeOutMs, recipe.toMs === null ? 0 : cutFadeMs)),
      shape: recipe.fadeShape,
    },
    // The source is first brought to the target, so that the threshold of the levelling means the same for each.
    gainBeforeDb:
      recipe.levelling > 0 && source.integratedLufs !== null
        ? targetFor(recipe, source.channels) - source.integratedLufs
        : 0,
    levelling: recipe.levelling,
    gainDb: 0,
    ceilingDbtp: null,
  }
}

/** What earlier tries of a plan came out wrong by, once encoded. */
export interface Miss {
  lu: number
  peakDb: number
}

/** The ceiling for the sound before it is encoded: lower by what the encoder does to the level, and by what it adds to peaks. */
export function ceilingBeforeEncoding(recipe: Recipe, { peakDb }: Miss): number {
  const { gainDb, peakRoomDb } = encodingOf(recipe)
  return recipe.ceilingDbtp - peakRoomDb - peakDb - gainDb
}

/** The loudness wanted of the sound before it is encoded. */
export const targetBeforeEncoding = (recipe: Recipe, channels: number, { lu }: Miss): number =>
  targetFor(recipe, channels) - lu - encodingOf(recipe).gainDb

/** How far a finished file may lie from the target. */
export const nearEnoughLu = 0.2

/** What an encoder adds to peaks grows with what is asked of it; far over the ceiling, part of it goes with the rest. */
const wholeDb = 1.5
const sparedDb = 0.2
const roomFor = (overDb: number): number =>
  overDb <= 0 ? 0 : Math.min(overDb, wholeDb) + Math.max(0, overDb - wholeDb) / 2 + sparedDb

/** By how much a finished file missed its recipe: LU over the target, and the room that peaks over the ceiling ask for, in dB; zeros where it is near enough. */
export function missOf(recipe: Recipe, finished: Measurement): Miss {
  const lu =
    recipe.toTarget && finished.integratedLufs !== null
      ? finished.integratedLufs - targetFor(recipe, finished.channels)
      : 0
  const peakDb = finished.truePeakDbtp === null ? 0 : Math.max(0, finished.truePeakDbtp - recipe.ceilingDbtp)
  return { lu: Math.abs(lu) <= nearEnoughLu ? 0 : lu, peakDb: roomFor(peakDb) }
}
