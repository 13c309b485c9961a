import { may, type Role } from '../access/roles'
import type { Around } from '../release/layout'
import { dateWords } from '../release/moment'
import { after, type Status } from '../release/status'
import { tagKey } from '../tags/tags'
import { type Dateable, type Dated, datedKinds, datesOf, isDated } from './dating'
import { type EpisodeText, fields, type Person, personKey, writtenSchemas } from './fields'
import type { Field } from './field'

/** What can be done to many episodes at once. */
export type BulkEdit =
  | { kind: 'add tags'; tags: string[] }
  | { kind: 'remove tags'; tags: string[] }
  | { kind: 'merge tags'; tags: string[]; into: string }
  | { kind: 'add people'; people: Person[] }
  | { kind: 'remove people'; people: Person[] }
  | { kind: 'merge people'; people: Person[]; into: Person }
  | { kind: 'season'; season: number | null }
  | { kind: 'explicit'; explicit: boolean | null }
  | { kind: 'renumber'; from: number }
  | { kind: 'to draft' }
  | { kind: 'remove' }
  | Dated

export type Affected = Dateable

/** What becomes of one of them: other words, another status, gone from the list, nothing; or why it cannot be. */
export type Outcome =
  | { text: Partial<EpisodeText> }
  | { step: 'unschedule' }
  | { isRemoved: true }
  /** Another date: what is not released yet goes out then, at once where that is past. */
  | { at: Date }
  | { refused: string }
  | null

/** What somebody has to be allowed for it. */
export const actFor = ({ kind }: BulkEdit): 'write' | 'make' =>
  kind === 'to draft' || kind === 'remove' || (datedKinds as readonly string[]).includes(kind) ? 'make' : 'write'

/** Whether a role may do it. */
export const mayBulkEdit = (role: Role, change: BulkEdit): boolean => may(role, actFor(change))

/**
 * What a change of many makes of each, in the order in which they go out: that is the order of new numbers. Only full
 * episodes take numbers.
 */
export function outcomesOf(change: BulkEdit, episodes: readonly Affected[], around: Around): Outcome[] {
  if (isDated(change)) return datesOf(change, episodes, around)
  if (change.kind !== 'renumber') return episodes.map(episode => outcomeOf(change, episode))
  let next = change.from
  return episodes.map(({ text }) => {
    if (text.kind !== 'full') return { refused: `A ${text.kind} takes no number.` }
    return checked(text, { number: next++ })
  })
}

function outcomeOf(change: Exclude<BulkEdit, Dated | { kind: 'renumber' }>, { text, status }: Affected): Outcome {
  switch (change.kind) {
    case 'to draft':
      return after('unschedule', status)
        ? { step: 'unschedule' }
        : refusal(status, 'a scheduled one goes back to draft')
    case 'remove':
      return status === 'draft' ? { isRemoved: true } : refusal(status, 'a draft can be removed')
    case 'season':
      return checked(text, { season: change.season })
    case 'explicit':
      return checked(text, { extras: { ...text.extras, explicit: change.explicit } })
    case 'add tags':
      return checked(text, { tags: withAll(text.tags, change.tags, tagKey) })
    case 'remove tags':
      return checked(text, { tags: without(text.tags, change.tags, tagKey) })
    case 'add people':
      return checked(text, { people: withAll(text.people, change.people, personKey) })
    case 'remove people':
      return checked(text, { people: without(text.people, change.people, personKey) })
    case 'merge tags':
      return checked(text, { tags: merged(text.tags, change.tags, change.into, tag => tag, tagKey) })
    case 'merge people':
      return checked(text, { people: mergedPeople(text.people, change.people, change.into) })
  }
}

const refusal = (status: Status, only: string): Outcome => ({ refused: `It is ${status}; only ${only}.` })

/** Nothing where it stays as it was, and a refusal where it would break a rule. */
function checked(text: EpisodeText, part: Partial<EpisodeText>): Outcome {
  for (const [name, value] of Object.entries(part) as [keyof EpisodeText, never][]) {
    if ((fields[name] as Field).isSame(text[name], value)) return null
    const { error } = writtenSchemas[name].safeParse(value)
    if (error) return { refused: error.issues[0]!.message }
  }
  return { text: part }
}

const withAll = <Entry>(have: readonly Entry[], added: readonly Entry[], keyOf: (entry: Entry) => string): Entry[] => {
  const known = new Set(have.map(keyOf))
  return [...have, ...added.filter(entry => !known.has(keyOf(entry)))]
}

const without = <Entry>(have: readonly Entry[], gone: readonly Entry[], keyOf: (entry: Entry) => string): Entry[] => {
  const going = new Set(gone.map(keyOf))
  return have.filter(entry => !going.has(keyOf(entry)))
}

/** Entries with some of them written another way, each once. */
function merged<Entry>(
  have: readonly Entry[],
  olds: readonly Entry[],
  into: Entry,
  idOf: (entry: Entry) => string,
  keyOf: (entry: Entry) => string,
): Entry[] {
  const going = new Set(olds.map(idOf))
  const all = have.map(entry => (going.has(idOf(entry)) ? into : entry))
  return [...new Map(all.map(entry => [keyOf(entry), entry])).values()]
}

/** Somebody who was written in several ways is written in one; what each did stays. */
function mergedPeople(have: readonly Person[], olds: readonly Person[], into: Person): Person[] {
  const names = new Set(olds.map(({ name }) => name))
  const all = have.map(person =>
    names.has(person.name) ? { ...person, name: into.name, address: into.address ?? person.address } : person,
  )
  return [...new Map(all.map(person => [personKey(person), person])).values()]
}

/** What becomes of an episode, in words: what it was, and what it will be. */
export function outcomeWords(
  { text, status, releaseAt }: Affected,
  outcome: Outcome,
  { zone, now }: Pick<Around, 'zone' | 'now'>,
): { before: string; after: string } {
  if (!outcome || 'refused' in outcome) return { before: '', after: '' }
  if ('at' in outcome) {
    const goesAtOnce = outcome.at <= now && status !== 'released'
    return {
      before: releaseAt ? dateWords(releaseAt, zone) : status,
      after: `${dateWords(outcome.at, zone)}${goesAtOnce ? '; goes out at once' : ''}`,
    }
  }
  if ('step' in outcome) return { before: status, after: 'draft' }
  if ('isRemoved' in outcome) return { before: status, after: 'removed' }
  const all = { ...text, ...outcome.text }
  const names = Object.keys(outcome.text) as (keyof EpisodeText)[]
  const told = (of: EpisodeText): string => names.map(name => wordsOf(name, of)).join(', ')
  return { before: told(text), after: told(all) }
}

/** Of the extras only one can change in many at once. */
const wordsOf = (name: keyof EpisodeText, text: EpisodeText): string =>
  name === 'extras'
    ? { null: 'as the show', true: 'yes', false: 'no' }[String(text.extras.explicit) as 'null' | 'true' | 'false']
    : (fields[name] as Field).shown(text[name])
