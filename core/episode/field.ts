import { deepEqual } from 'fast-equals'
import type { z } from 'zod'

/** What both of two windows changed, to different things: a person must choose. */
export const conflict = Symbol('conflict')
export type Conflict = typeof conflict

/** Where a field shows outside the studio. */
export interface Appearance {
  /** Elements of an item of the feed. */
  feed: readonly string[]
  /** Its place on the episode's page; null where it has none. */
  page: string | null
  /** The ID3v2 frame of the finished file (id3.org, ID3v2.3.0, section 4); null where it has none. */
  tag: string | null
}

/** One thing that a person writes about an episode, with everything that follows from it. */
export interface Field<Schema extends z.ZodType = z.ZodType> {
  /** What may be written. */
  schema: Schema
  /** What is read: also what was kept before a rule became stricter. */
  kept: z.ZodType<z.output<Schema>>
  /** What a new episode has, and one that was released before there was this field. */
  unset: z.output<Schema>
  /** The schema of released snapshots that had it first. */
  since: number
  /** As it is called in a sentence. */
  name: string
  appears: Appearance
  isSame(one: z.output<Schema>, other: z.output<Schema>): boolean
  /** Whether it has as many entries: typing leaves their number, and adding or taking away does not. */
  hasAsMany(one: z.output<Schema>, other: z.output<Schema>): boolean
  /** Brings together what two windows made of `base`. */
  merge(base: z.output<Schema>, mine: z.output<Schema>, theirs: z.output<Schema>): z.output<Schema> | Conflict
  /** A value in words; empty where there is nothing. */
  shown(value: z.output<Schema>): string
}

type FieldDefinition<Schema extends z.ZodType> = Omit<Field<Schema>, 'isSame' | 'hasAsMany' | 'merge' | 'shown'> &
  Partial<Pick<Field<Schema>, 'shown' | 'isSame'>>

/** A field that is one thing: it changes as a whole. */
export function whole<Schema extends z.ZodType>(told: FieldDefinition<Schema>): Field<Schema> {
  return {
    shown: value => (value === null ? '' : String(value)),
    isSame: deepEqual,
    ...told,
    hasAsMany: () => true,
    merge: mergeWhole,
  }
}

/** A field of named parts, each of which changes by itself. */
export function parts<Schema extends z.ZodType<Record<string, unknown>>>(told: FieldDefinition<Schema>): Field<Schema> {
  type Value = z.output<Schema>
  return {
    shown: value => Object.values(value).filter(Boolean).join(', '),
    isSame: deepEqual,
    ...told,
    hasAsMany: () => true,
    merge(base, mine, theirs) {
      const names = [...new Set([...Object.keys(theirs), ...Object.keys(mine)])]
      const merged = names.map(name => [name, mergeWhole(base[name], mine[name], theirs[name])] as const)
      return merged.some(([, value]) => value === conflict) ? conflict : (Object.fromEntries(merged) as Value)
    },
  }
}

/** A field that is a list of entries, which come, change and go by themselves; `keyOf` tells which is which. */
export function list<Entry, Schema extends z.ZodType<Entry[]>>(
  told: FieldDefinition<Schema>,
  keyOf: (entry: Entry) => string,
): Field<Schema> {
  return {
    shown: value => value.map(keyOf).join(', '),
    isSame: deepEqual,
    ...told,
    hasAsMany: (one, other) => one.length === other.length,
    merge: (base, mine, theirs) => mergeLists(base, mine, theirs, keyOf) as z.output<Schema> | Conflict,
  }
}

/** The same where there may be no list at all, which is another thing than an empty one. */
export function listOrNone<Entry, Schema extends z.ZodType<Entry[] | null>>(
  told: FieldDefinition<Schema> & Pick<Field<Schema>, 'shown'>,
  keyOf: (entry: Entry) => string,
): Field<Schema> {
  return {
    isSame: deepEqual,
    ...told,
    hasAsMany: (one, other) => one?.length === other?.length,
    merge(base, mine, theirs) {
      const merged = mergeWhole(base, mine, theirs)
      if (merged !== conflict || !mine || !theirs) return merged
      return mergeLists(base ?? [], mine, theirs, keyOf) as z.output<Schema> | Conflict
    },
  }
}

/** A field of lists whose entries are told apart by their ids, or none; what comes together to something that may not be written is a person’s to choose. */
export function listsOrNone<Lists extends string, Schema extends z.ZodType<Record<Lists, { id: string }[]> | null>>(
  told: FieldDefinition<Schema> & Pick<Field<Schema>, 'shown'>,
  names: readonly Lists[],
): Field<Schema> {
  return {
    isSame: deepEqual,
    ...told,
    hasAsMany: (one, other) => names.every(name => one?.[name]?.length === other?.[name]?.length),
    merge(base, mine, theirs) {
      const merged = mergeWhole(base, mine, theirs)
      if (merged !== conflict || !mine || !theirs) return merged
      const lists = names.map(name => [name, mergeLists(base?.[name] ?? [], mine[name], theirs[name], ({ id }) => id)])
      const together = told.schema.safeParse({ ...theirs, ...Object.fromEntries(lists) })
      return together.success ? together.data : conflict
    },
  }
}

function mergeWhole<Value>(base: Value, mine: Value, theirs: Value): Value | Conflict {
  if (deepEqual(mine, base) || deepEqual(mine, theirs)) return theirs
  return deepEqual(theirs, base) ? mine : conflict
}

/** In the order of whoever changed it, theirs where both did; what only the other has comes behind. */
function mergeLists<Entry>(
  base: readonly Entry[],
  mine: readonly Entry[],
  theirs: readonly Entry[],
  keyOf: (entry: Entry) => string,
): Entry[] | Conflict {
  const [bases, mines, theirss] = [base, mine, theirs].map(
    entries => new Map(entries.map(entry => [keyOf(entry), entry])),
  )
  const isTheirsMoved = !deepEqual(theirs.map(keyOf), base.map(keyOf))
  const [first, second] = isTheirsMoved ? [theirs, mine] : [mine, theirs]
  const merged: Entry[] = []
  for (const key of new Set([...first, ...second].map(keyOf))) {
    const entry = mergeWhole(bases!.get(key), mines!.get(key), theirss!.get(key))
    if (entry === conflict) return conflict
    if (entry !== undefined) merged.push(entry)
  }
  return merged
}
