import { amplitude } from './decibels'
import { lookaheadMs, releaseMs } from './limiter'
import { LoudnessHistory } from './loudness'
import { windowFrames } from './soundKernel'
import type { SoundProfile } from './soundProfile'

export interface GainFound {
  gainDb: number
  /** What the profile says that it comes to; null for silence. */
  lufs: number | null
  /** The target can be had under the ceiling. */
  reaches: boolean
}

/** So much more than the loudness alone asks for may be spent on what the limiter takes away; beyond, peaks are only crushed. */
const mostSpentDb = 15
const stepDb = 1
const nearEnoughLu = 0.005

/**
 * Finds the gain that brings a sound to a loudness once a limiter holds its peaks under a ceiling. The limiter takes
 * loudness away, so the gain lies at or above what the loudness alone asks for; it is bracketed and halved on the
 * profile, without a pass over the sound. Where limiting eats up too much of it, the gain stops short of the target.
 */
export function searchGain(profile: SoundProfile, targetLufs: number, ceilingDbtp: number): GainFound {
  const at = (gainDb: number): number | null => loudnessBehindLimiter(profile, gainDb, ceilingDbtp)
  const own = loudnessBehindLimiter(profile, 0, Infinity)
  if (own === null) return { gainDb: 0, lufs: null, reaches: false }
  const plain = targetLufs - own
  let low = plain
  let lowLufs = at(low)!
  if (lowLufs >= targetLufs - nearEnoughLu) return { gainDb: low, lufs: lowLufs, reaches: true }
  let high = low
  let highLufs = lowLufs
  while (highLufs < targetLufs) {
    if (high - plain >= mostSpentDb) return { gainDb: high, lufs: highLufs, reaches: false }
    low = high
    lowLufs = highLufs
    high += stepDb
    highLufs = at(high)!
  }
  while (highLufs - lowLufs > nearEnoughLu && high - low > 0.001) {
    const middle = (low + high) / 2
    const lufs = at(middle)!
    if (lufs < targetLufs) [low, lowLufs] = [middle, lufs]
    else [high, highLufs] = [middle, lufs]
  }
  return { gainDb: low, lufs: lowLufs, reaches: true }
}

/** The integrated loudness of a profile's sound behind a gain and a limiter as `Limiter` is one; null for silence. */
export function loudnessBehindLimiter(
  { peaks, energies, sampleRateHz, frames }: SoundProfile,
  gainDb: number,
  ceilingDbtp: number,
): number | null {
  const gains = limiterGains(peaks, amplitude(gainDb), amplitude(ceilingDbtp), sampleRateHz)
  const history = new LoudnessHistory()
  const power = amplitude(gainDb) ** 2
  let stretch = 0
  let stretchEnd = sampleRateHz / 10
  let energy = 0
  let from = 0
  for (let window = 0; window < energies.length; window++) {
    const place = window * windowFrames
    while (place >= stretchEnd) {
      history.add(energy / (stretchEnd - from))
      energy = 0
      from = stretchEnd
      stretchEnd = (++stretch + 1) * (sampleRateHz / 10)
    }
    energy += energies[window]! * power * (gains ? gains[window]! ** 2 : 1)
  }
  if (frames >= stretchEnd) history.add(energy / (stretchEnd - from))
  return history.report().integratedLufs
}

/** The limiter's gain at each window: the least that any ahead asks for, released slowly, drawn out over the lookahead; null where it has nothing to do. */
function limiterGains(peaks: Float32Array, gain: number, ceiling: number, sampleRateHz: number): Float32Array | null {
  const most = ceiling / gain
  if (!peaks.some(peak => peak > most)) return null
  const ahead = Math.max(1, Math.round(((lookaheadMs / 1000) * sampleRateHz) / windowFrames))
  const release = 1 - Math.exp((-1000 * windowFrames) / (releaseMs * sampleRateHz))
  const gains = new Float32Array(peaks.length)
  const slope = new Float32Array(ahead).fill(1)
  let released = 1
  let sum = ahead
  for (let window = 0; window < peaks.length; window++) {
    let least = 1
    for (let n = window; n <= Math.min(window + ahead, peaks.length - 1); n++)
      if (peaks[n]! > most && most / peaks[n]! < least) least = most / peaks[n]!
    released = Math.min(least, released + (1 - released) * release)
    sum += released - slope[window % ahead]!
    slope[window % ahead] = released
    gains[window] = sum / ahead
  }
  return gains
}
