const steps: Readonly<Record<string, number>> = {
  ArrowLeft: -5000,
  ArrowDown: -5000,
  ArrowRight: 5000,
  ArrowUp: 5000,
  PageDown: -60_000,
  PageUp: 60_000,
  Home: -Infinity,
  End: Infinity,
}

/** Where a key on a slider of time moves it to, in ms; undefined for keys that do not. */
export function movedByKey(event: KeyboardEvent, atMs: number, durationMs: number): number | undefined {
  const step = steps[event.key]
  if (step === undefined) return undefined
  event.preventDefault()
  return Math.min(durationMs, Math.max(0, atMs + step))
}
