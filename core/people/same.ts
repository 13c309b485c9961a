import type { Person } from '../episode/fields'
import { fold } from '../words/fold'

const wordsOf = (name: string): string[] => fold(name).replace(/[.,]/g, ' ').split(/\s+/).filter(Boolean)

/** Whether two names may be one person’s: the same but for case, accents and signs, or with first names cut to initials. */
function mayBeOne(one: string, other: string): boolean {
  const [a, b] = [wordsOf(one), wordsOf(other)]
  if (a.length !== b.length || a.length === 0) return false
  const isShort = (short: string, long: string): boolean => short.length === 1 && long.startsWith(short)
  return a.every((word, at) => {
    const theirs = b[at]!
    const isLast = at === a.length - 1
    return word === theirs || (!isLast && a.length > 1 && (isShort(word, theirs) || isShort(theirs, word)))
  })
}

/** Names in a show’s book of people that may be one person’s, the fullest of each first. */
export function namesOfOne(people: readonly Person[]): Person[][] {
  const byName = new Map<string, Person>()
  for (const person of people) if (!byName.get(person.name)?.address) byName.set(person.name, person)
  const groups: Person[][] = []
  for (const person of byName.values()) {
    const group = groups.find(([first]) => mayBeOne(first!.name, person.name) || isSameAddress(first!, person))
    if (group) group.push(person)
    else groups.push([person])
  }
  return groups
    .filter(group => group.length > 1)
    .map(group => group.toSorted((one, other) => other.name.length - one.name.length))
}

const isSameAddress = (one: Person, other: Person): boolean => one.address !== null && one.address === other.address
