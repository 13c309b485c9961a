const mostReaders = 10_000_000

/**
 * For how many a program says that it fetches a feed (`12 subscribers`, common practice, no source); null where it says nothing, or
 * what nobody believes.
 */
export function toldReaders(userAgent: string): number | null {
  const [, digits] = /(?:^|[^\w.])(\d{1,9}) (?:subscriber|reader|follower)s?\b/i.exec(userAgent) ?? []
  const readers = Number(digits ?? Number.NaN)
  return readers <= mostReaders ? readers : null
}
