const dayMs = 24 * 3600_000

/** Days on which nobody works, as month and day. */
const holidays = new Set(['01-01', '05-01', '12-24', '12-25', '12-26', '12-31'])

export function isWorkingDay(ms: number): boolean {
  const day = new Date(ms)
  const weekday = day.getUTCDay()
  return weekday !== 0 && weekday !== 6 && !holidays.has(day.toISOString().slice(5, 10))
}

/** The moment so many working days later, in the working hours of the last of them. */
export function afterWorkingDays(fromMs: number, days: number): number {
  let ms = Math.floor(fromMs / dayMs) * dayMs
  for (let left = days; left > 0;) {
    ms += dayMs
    if (isWorkingDay(ms)) left--
  }
  return ms + 10 * 3600_000
}
