/** What a show's pattern for titles may name. */
const patternFields = ['number', 'season', 'title', 'show'] as const
type PatternField = (typeof patternFields)[number]

const field = /\{([^{}]*)\}/g
export const barePattern = '{title}'

/** What is wrong with a pattern; null where nothing is. */
export function patternFault(pattern: string): string | null {
  const named = [...pattern.matchAll(field)].map(([, name]) => name!)
  const unknown = named.find(name => !(patternFields as readonly string[]).includes(name))
  if (unknown !== undefined) return `There is no field {${unknown}}; there are {number}, {season}, {title} and {show}.`
  return named.includes('title') ? null : 'The pattern must have {title} in it.'
}

/**
 * A title as feed, page and tags show it, such as `37. A letter from a chapel`. Where the pattern names a number or a
 * season that the episode does not have, its title stands alone.
 */
export function patternTitle(
  pattern: string,
  { title, number, season }: { title: string; number: number | null; season: number | null },
  show: string,
): string {
  const values: Record<PatternField, string | number | null> = { title, number, season, show }
  const names = [...pattern.matchAll(field)].map(([, name]) => name as PatternField)
  if (names.some(name => values[name] === null)) return title
  return pattern.replace(field, (_, name: PatternField) => String(values[name])).trim()
}
