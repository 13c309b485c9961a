/** The zones that can be chosen. The list leaves UTC out, and a browser may call a zone by a name that is not on it. */
export const zonesWith = (...known: readonly string[]): string[] =>
  [...new Set(['UTC', ...known, ...Intl.supportedValuesOf('timeZone')])].sort()

/** The few that matter when a moment of a show is chosen: its own, its listeners', the one of whoever sits here, and UTC. */
export const zonesToChoose = (zone: string, listenerZones: readonly string[]): string[] => [
  ...new Set([zone, ...listenerZones, Intl.DateTimeFormat().resolvedOptions().timeZone, 'UTC']),
]
