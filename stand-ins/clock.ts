const everyMs = 1_000

/**
 * What time it is in the house that a stand-in serves, in ms: asked at an address that answers `{ "offsetMs": … }`, again and
 * again, since time can be moved there. Without an address, and while nobody answers, it is the world's.
 */
export function followClock(address: string | undefined): () => number {
  let offsetMs = 0
  const ask = async (): Promise<void> => {
    const answer = await fetch(address!, { signal: AbortSignal.timeout(everyMs) })
    const told = (await answer.json()) as { offsetMs?: unknown }
    if (answer.ok && typeof told.offsetMs === 'number') offsetMs = told.offsetMs
  }
  if (address) setInterval(() => void ask().catch(() => undefined), everyMs).unref()
  return () => Date.now() + offsetMs
}
