/** How loud a show usually is: the median of its last episodes, in LUFS as heard; null where there are fewer than two. */
export function usualLoudness(episodes: readonly { integratedLufs: number | null; channels: number }[]): number | null {
  // One channel comes from both loudspeakers and sounds 3 LU louder than it measures.
  const heard = episodes.flatMap(({ integratedLufs, channels }) => integratedLufs === null ? [] : [channels === 1 ? integratedLufs + 3 : integratedLufs]).sort((a, b) => a - b)
  if (heard.length < 2) return null
  const middle = Math.floor(heard.length / 2)
  return heard.length % 2 ? heard[middle]! : (heard[middle - 1]! + heard[middle]!) / 2
}
