/** Reads a time of day as people type it (`6`, `6:30`, `0630`, `06.30`) and answers `06:30`; null where it is none. */
export function readTimeOfDay(typed: string): string | null {
  const found = /^\s*(\d{1,2})(?:\s*[:.h]?\s*(\d{2}))?\s*$/.exec(typed)
  if (!found) return null
  const [hour, minute] = [Number(found[1]), Number(found[2] ?? 0)]
  return hour < 24 && minute < 60 ? `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}` : null
}
