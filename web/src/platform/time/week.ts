/**
 * The day that a week begins with for readers of a language: 0 for Sunday, 1 for Monday, by CLDR's week data. English of no
 * named country begins with Monday, as ISO 8601 does: CLDR would take it for that of the United States.
 */
export function firstDayOf(language: string): number {
  if (language === 'en') return 1
  try {
    const locale = new Intl.Locale(language) as Intl.Locale & {
      weekInfo?: { firstDay: number }
      getWeekInfo?(): { firstDay: number }
    }
    return (locale.getWeekInfo?.() ?? locale.weekInfo)!.firstDay % 7
  } catch {
    return 1
  }
}
