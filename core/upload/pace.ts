export interface Progress {
  atMs: number
  sentBytes: number
}

const windowMs = 5_000

/** Speed over the last five seconds and the time left at it; null while there is too little to tell. */
export function pace(
  history: readonly Progress[],
  totalBytes: number,
): { bytesPerSecond: number; secondsLeft: number } | null {
  const last = history.at(-1)
  const first = last && history.find(({ atMs }) => last.atMs - atMs <= windowMs)
  if (!last || !first || last.atMs - first.atMs < 250) return null
  const bytesPerSecond = ((last.sentBytes - first.sentBytes) / (last.atMs - first.atMs)) * 1000
  if (bytesPerSecond <= 0) return null
  return { bytesPerSecond, secondsLeft: Math.ceil((totalBytes - last.sentBytes) / bytesPerSecond) }
}

/** The newest stretch of a history that `pace` still looks at. */
export function recent(history: readonly Progress[]): Progress[] {
  const last = history.at(-1)
  return last ? history.filter(({ atMs }) => last.atMs - atMs <= windowMs) : []
}
