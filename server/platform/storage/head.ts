/** Headers as they go out, names and values in turn, which Node writes down much faster than an object's. */
export type Head = readonly string[]

export const headOf = (headers: Readonly<Record<string, string>>): Head => Object.entries(headers).flat()

/** For the framework. */
export const headersOf = (head: Head): Record<string, string> =>
  Object.fromEntries(head.flatMap((name, index) => (index % 2 === 0 ? [[name, head[index + 1]!]] : [])))
