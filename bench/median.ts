/** The middle of some values, by size; the higher one of two. */
export const median = (values: readonly number[]): number =>
  values.toSorted((one, other) => one - other)[values.length >> 1]!
