/** The zones that can be chosen. The list leaves UTC out, and a browser may call a zone by a name that is not on it. */
export const zonesWith = (...known: readonly string[]): string[] =>
  [...new Set(['UTC', ...known, ...Intl.supportedValuesOf('timeZone')])].sort()
