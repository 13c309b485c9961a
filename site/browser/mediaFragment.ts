/** Addresses that lead to a place in the sound: `#t=83.5`, or `#t=83.5,90` with an end (W3C Media Fragments 1.0, section 4.2.1). */
const pattern = /^#t=(?:npt:)?(\d{1,6}(?:\.\d{1,3})?)(?:,(\d{1,6}(?:\.\d{1,3})?))?$/

export interface MediaFragment {
  from: number
  /** Where it is to stop; null where it plays on. */
  to: number | null
}

/** Reads the place from the end of an address; null where it names none. Seconds. */
export function readMediaFragment(hash: string): MediaFragment | null {
  const [, from, to] = pattern.exec(hash) ?? []
  return from === undefined ? null : { from: Number(from), to: to === undefined ? null : Number(to) }
}

/** The end of an address that leads to a place; whole seconds, which are what people compare. */
export const hashOf = (seconds: number): string => `#t=${Math.floor(seconds)}`
