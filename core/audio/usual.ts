import type { Measurement } from './measurement'

/** How loud a sound is as it is heard, in LUFS: one channel comes from both loudspeakers, 3 LU louder than it measures. */
export function heardLufs({
  integratedLufs,
  channels,
}: Pick<Measurement, 'integratedLufs' | 'channels'>): number | null {
  return integratedLufs !== null && channels === 1 ? integratedLufs + 3 : integratedLufs
}

/** How loud a show usually is: the median of its last episodes as they are heard; null where there are fewer than two. */
export function usualLoudness(heard: readonly number[]): number | null {
  if (heard.length < 2) return null
  const sorted = [...heard].sort((a, b) => a - b)
  const middle = Math.floor(sorted.length / 2)
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}
