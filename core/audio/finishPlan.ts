import type { FinishPlan } from './finisher'
import type { Measurement } from './measurement'
import { encodingOf, type Recipe, targetFor } from './recipe'

/** Silence that stays at each end when it is trimmed. */
const keptHeadMs = 250
const keptTailMs = 1_000

/** Where to cut so that the silence at the ends goes, with a breath of it left; null where there is none to speak of. */
export function trimOf({ headSilenceMs, tailSilenceMs, durationMs }: Measurement): { fromMs: number | null; toMs: number | null } {
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
    fades: { inFrames: frames(recipe.fadeInMs), outFrames: frames(recipe.fadeOutMs), shape: recipe.fadeShape },
    // The source is first brought to the target, so that the threshold of the levelling means the same for each.
    gainBeforeDb: recipe.levelling > 0 && source.integratedLufs !== null ? targetFor(recipe, source.channels) - source.integratedLufs : 0,
    levelling: recipe.levelling,
    gainDb: 0,
    ceilingDbtp: null,
  }
}

/** Whether what `planBeforeGain` does leaves loudness and peaks as the source's measurement tells them. */
export const leavesSoundAlone = (recipe: Recipe, source: Measurement): boolean =>
  recipe.levelling === 0 && recipe.fromMs === null && recipe.toMs === null && recipe.fadeInMs === 0 && recipe.fadeOutMs === 0 &&
  encodingOf(recipe).channels === source.channels

/**
 * The whole plan, from what was measured behind `planBeforeGain`. `miss` is by how much an earlier try of the same
 * plan came out wrong once encoded, and is taken into account.
 */
export function planWithGain(plan: FinishPlan, recipe: Recipe, levelled: Measurement, miss: { lu: number; peakDb: number }): FinishPlan {
  const target = targetFor(recipe, plan.channels)
  const { gainDb: encoderDb, peakRoomDb } = encodingOf(recipe)
  const gainDb = recipe.toTarget && levelled.integratedLufs !== null ? target - levelled.integratedLufs - miss.lu - encoderDb : -encoderDb
  return { ...plan, gainDb, ceilingDbtp: recipe.ceilingDbtp - peakRoomDb - miss.peakDb - encoderDb }
}

/** How far a finished file may lie from the target. */
const nearEnoughLu = 0.2

/** By how much a finished file missed its recipe: LU over the target, dB over the ceiling; zeros where it is near enough. */
export function missOf(recipe: Recipe, finished: Measurement): { lu: number; peakDb: number } {
  const lu = recipe.toTarget && finished.integratedLufs !== null ? finished.integratedLufs - targetFor(recipe, finished.channels) : 0
  const peakDb = finished.truePeakDbtp === null ? 0 : Math.max(0, finished.truePeakDbtp - recipe.ceilingDbtp)
  return { lu: Math.abs(lu) <= nearEnoughLu ? 0 : lu, peakDb: peakDb > 0 ? peakDb + 0.2 : 0 }
}
