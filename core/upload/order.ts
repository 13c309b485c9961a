const natural = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })

/** Files in the order of the numbers in their names: 2 before 10, whatever stands around them. */
export function inNaturalOrder<T extends { name: string }>(files: readonly T[]): T[] {
  return [...files].sort((one, other) => natural.compare(one.name, other.name))
}
