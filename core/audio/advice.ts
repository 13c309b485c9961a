import { severities } from '../words/severity'
import { type Finding, finding } from './findings'
import { nearEnoughLu } from './finishPlan'
import type { Measurement } from './measurement'
import { type Recipe, targetFor } from './recipe'
import { heardLufs } from './usual'

/** What a measured sound is judged against: the show's recipe, and how loud its last episodes are. */
export interface Standard {
  recipe: Recipe
  usualLufs: number | null
}

const leastDifferenceLu = 1
const longestHeadMs = 1_000
const longestTailMs = 3_000
export const widestRangeLu = 14

/** What a measurement gives reason to say, the gravest first. */
export function advice(measured: Measurement, standard: Standard): Finding[] {
  const found = [
    silent,
    damaged,
    loudness,
    limiting,
    peaks,
    clipped,
    head,
    tail,
    gaps,
    sides,
    turnedOver,
    range,
    twice,
  ].flatMap(check => check(measured, standard) ?? [])
  return found.sort((one, other) => severities.indexOf(one.severity) - severities.indexOf(other.severity))
}

type Check = (measured: Measurement, standard: Standard) => Finding | null

const silent: Check = ({ samplePeakDbfs, headSilenceMs, durationMs }) =>
  samplePeakDbfs !== null && headSilenceMs < durationMs ? null : finding('error', 'silent', {})

const damaged: Check = ({ damaged: places = [] }) =>
  places.length === 0 ? null : finding('error', 'damaged', { places: places.length }, { places })

const loudness: Check = (measured, { recipe, usualLufs }) => {
  const { integratedLufs, truePeakDbtp, channels } = measured
  if (integratedLufs === null || truePeakDbtp === null) return null
  const targetLufs = targetFor(recipe, channels)
  const gainDb = targetLufs - integratedLufs
  if (Math.abs(gainDb) <= leastDifferenceLu) return null
  const peakDbtp = truePeakDbtp + gainDb
  const fromUsual = usualLufs === null ? 0 : usualLufs - heardLufs(measured)!
  // The usual loudness is the better yardstick, unless the show's episodes lie elsewhere themselves.
  const byUsual = fromUsual * gainDb > 0 && Math.abs(fromUsual) > 0.5 && Math.abs(usualLufs! - recipe.targetLufs) <= 2
  const figures = {
    distanceLu: Math.abs(byUsual ? fromUsual : gainDb),
    from: byUsual ? ('usual' as const) : ('target' as const),
    gainDb,
    peakDbtp,
    targetLufs,
    channels,
    needsLimiting: peakDbtp > recipe.ceilingDbtp,
  }
  const severity = Math.abs(gainDb) > 3 ? 'warning' : 'note'
  return finding(severity, gainDb > 0 ? 'quieter' : 'louder', figures, { fix: 'finish' })
}

/** Peaks that are held back by more change how a sound feels. */
export const deepLimitingDb = 6
const harshLimitingDb = 12

/** What finishing would do to peaks, as far as one number tells it. */
const limiting: Check = ({ integratedLufs, truePeakDbtp, channels }, { recipe }) => {
  if (integratedLufs === null || truePeakDbtp === null || !recipe.toTarget) return null
  return deepLimiting(truePeakDbtp + targetFor(recipe, channels) - integratedLufs - recipe.ceilingDbtp, 'before')
}

function deepLimiting(heldBackDb: number, when: 'before' | 'after'): Finding | null {
  if (heldBackDb <= deepLimitingDb) return null
  const severity = heldBackDb > harshLimitingDb ? 'warning' : 'note'
  return finding(severity, 'deep-limiting', { heldBackDb, when }, { fix: 'level' })
}

/** What came of a finish that a person should know: deep limiting, and a target that the ceiling did not allow. */
export function finishFindings(
  { limitedByDb, missedByLu }: { limitedByDb: number; missedByLu: number },
  { targetLufs, ceilingDbtp }: Pick<Recipe, 'targetLufs' | 'ceilingDbtp'>,
): Finding[] {
  const missed =
    Math.abs(missedByLu) > nearEnoughLu
      ? finding('note', 'target-missed', { targetLufs, ceilingDbtp, missedByLu }, { fix: 'level' })
      : null
  return [missed, deepLimiting(limitedByDb, 'after')].filter(found => found !== null)
}

const peaks: Check = ({ truePeakDbtp }, { recipe: { ceilingDbtp } }) =>
  truePeakDbtp === null || truePeakDbtp <= ceilingDbtp + 0.05
    ? null
    : finding(truePeakDbtp > 0 ? 'warning' : 'note', 'peaks', { truePeakDbtp, ceilingDbtp }, { fix: 'finish' })

/** Places that were clipped before they came here, which no finishing brings back. */
export const clipped: Check = ({ clips, clipCount }) =>
  clipCount === 0 ? null : finding('warning', 'clipped', { clips: clipCount }, { places: clips })

const head: Check = ({ headSilenceMs, durationMs }) =>
  headSilenceMs <= longestHeadMs || headSilenceMs >= durationMs
    ? null
    : finding(
        'warning',
        'head-silence',
        { silenceMs: headSilenceMs },
        { fix: 'trim', places: [{ fromMs: 0, toMs: headSilenceMs }] },
      )

const tail: Check = ({ tailSilenceMs, durationMs }) =>
  tailSilenceMs <= longestTailMs
    ? null
    : finding(
        'warning',
        'tail-silence',
        { silenceMs: tailSilenceMs },
        { fix: 'trim', places: [{ fromMs: durationMs - tailSilenceMs, toMs: durationMs }] },
      )

const gaps: Check = ({ gaps: places }) =>
  places.length === 0 ? null : finding('note', 'gaps', { gaps: places.length }, { places })

const sides: Check = ({ image }) =>
  image !== 'one side only' ? null : finding('warning', 'one-side', {}, { fix: 'mono' })

const turnedOver: Check = ({ image }) =>
  image !== 'antiphase' ? null : finding('warning', 'antiphase', {}, { fix: 'one side' })

const range: Check = ({ rangeLu }) =>
  rangeLu <= widestRangeLu ? null : finding('note', 'range', { rangeLu }, { fix: 'level' })

const twice: Check = ({ image }) => (image !== 'dual mono' ? null : finding('note', 'dual-mono', {}, { fix: 'mono' }))
