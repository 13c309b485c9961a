import { z } from 'zod'
import { writtenSchemas } from '@core/episode/fields'
import { weekdays } from '@core/release/rhythm'
import { calendarDay, timeOfDay } from './rhythm'

/** So many episodes can be changed in one go. */
export const mostBulkEdited = 5000

const { tags, people, season, number } = writtenSchemas
const explicit = writtenSchemas.extras.shape.explicit
const tag = tags.element
const person = people.element
const some = <Entry extends z.ZodType>(entry: Entry) => z.array(entry).min(1, 'At least one.').max(100, 'At most 100.')

const layout = z.object({
  way: z.enum(['from', 'up to']),
  day: calendarDay,
  step: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('slots') }),
    z.object({
      kind: z.literal('weekdays'),
      days: z.array(z.enum(weekdays)).min(1, 'At least one day.').max(7, 'At most seven days.'),
      time: timeOfDay,
    }),
    z.object({
      kind: z.literal('days'),
      every: z.number().int('A whole number.').min(1, 'At least 1 day.').max(366, 'At most 366 days.'),
      time: timeOfDay,
    }),
  ]),
})

/** What can be done to many episodes at once. */
export const bulkEdit = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('add tags'), tags: some(tag) }),
  z.object({ kind: z.literal('remove tags'), tags: some(tag) }),
  z.object({ kind: z.literal('merge tags'), tags: some(tag), into: tag }),
  z.object({ kind: z.literal('add people'), people: some(person) }),
  z.object({ kind: z.literal('remove people'), people: some(person) }),
  z.object({ kind: z.literal('merge people'), people: some(person), into: person }),
  z.object({ kind: z.literal('season'), season }),
  z.object({ kind: z.literal('explicit'), explicit }),
  z.object({ kind: z.literal('renumber'), from: number.unwrap() }),
  z.object({ kind: z.literal('to draft') }),
  z.object({ kind: z.literal('remove') }),
  z.object({ kind: z.literal('lay out'), layout, order: z.enum(['number', 'file name', 'as listed']) }),
  z.object({ kind: z.literal('dates by number') }),
  z.object({ kind: z.literal('minute apart') }),
])

const kinds = bulkEdit.options.map(({ shape }) => shape.kind.value)

const ids = z.array(z.uuid()).min(1, 'At least one episode.').max(mostBulkEdited, 'At most 5,000 episodes.')

/** Which episodes: those that were chosen, all of the show, or one and all that go out after it. */
export const bulkEditQuery = z.object({
  episodes: z.union([ids, z.literal('all'), z.object({ from: z.uuid() })]),
  change: bulkEdit,
})
export type BulkEditQuery = z.infer<typeof bulkEditQuery>

/** What a change would make of some episodes, in words. */
export const bulkEditPreview = z.object({
  /** All that were looked at, as the change itself has to name them. */
  episodes: z.array(z.object({ id: z.string(), version: z.number() })),
  changes: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      before: z.string(),
      after: z.string(),
      /** The date that it would have; null where it is about something else. */
      at: z.string().nullable(),
    }),
  ),
  refused: z.array(z.object({ id: z.string(), title: z.string(), why: z.string() })),
  /** How many stay as they are. */
  same: z.number(),
  /** How many would go out at once, because their date is past; and how many that are out would have another date. */
  atOnce: z.number(),
  redated: z.number(),
})
export type BulkEditPreview = z.infer<typeof bulkEditPreview>

/** The change, of the episodes that it was looked at for, as they were seen then. */
export const bulkEditRequest = z.object({
  episodes: z
    .array(
      z.object({
        id: z.uuid(),
        version: z.number().int(),
        /** The date that it was seen to get. */
        at: z.iso.datetime().optional(),
      }),
    )
    .min(1, 'At least one episode.')
    .max(mostBulkEdited, 'At most 5,000 episodes.'),
  change: bulkEdit,
})
export type BulkEditRequest = z.infer<typeof bulkEditRequest>

export const bulkEditResult = z.object({ id: z.string(), changed: z.number() })
export type BulkEditResult = z.infer<typeof bulkEditResult>

/** Which of them to take back; all where nothing is said. */
export const bulkEditUndo = z.object({
  episodes: z.array(z.uuid()).min(1, 'At least one episode.').max(mostBulkEdited, 'At most 5,000 episodes.').optional(),
})
export type BulkEditUndo = z.infer<typeof bulkEditUndo>

/** How many were taken back, and what was left because it has changed since. */
export const bulkEditUndone = z.object({
  changed: z.number(),
  left: z.array(z.object({ id: z.string(), title: z.string(), why: z.string() })),
})
export type BulkEditUndone = z.infer<typeof bulkEditUndone>

/** The last few that were done to many of a show and not taken back, the newest first. */
export const bulkEditHistory = z.object({
  changes: z.array(z.object({ id: z.string(), kind: z.enum(kinds), changed: z.number(), at: z.string() })),
})
export type BulkEditHistory = z.infer<typeof bulkEditHistory>
