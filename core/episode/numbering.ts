import type { Want } from './wants'

/** How a number stands among those of the show, or of its season. */
export interface Numbering {
  /** The next free one. */
  next: number
  /** The title of another episode that has the same. */
  same: string | null
  /** The number that is left out before it. */
  skipped: number | null
  /** An episode that goes out before it with a higher number, and one that goes out after it with a lower one. */
  before: { title: string; number: number } | null
  after: { title: string; number: number } | null
}

/** What is odd about a number: used twice, one left out before it, or against the order of dates. */
export function numberWants({ same, skipped, before, after }: Numbering): Want[] {
  const want = (code: Want['code'], told: string): Want => ({ field: 'number', severity: 'warning', code, told })
  const against = before ?? after
  return [
    ...(same === null ? [] : [want('number-twice', same || 'an untitled episode')]),
    ...(skipped === null ? [] : [want('number-skipped', String(skipped))]),
    ...(against ? [want('number-against-dates', `${against.number} ${against.title}`)] : []),
  ]
}
