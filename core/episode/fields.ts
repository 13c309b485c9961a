import { z } from 'zod'
import { plainNotes } from '../notes/plain'
import { oneLine } from '../words/line'
import { type Field, whole } from './field'

const wholeNumber = (least: number, most: number) =>
  z.number().int('A whole number.').min(least, `At least ${least}.`).max(most, `At most ${most}.`).nullable()

export const mostNotesCharacters = 100_000

/** Everything that a person writes about an episode. What forms, answers, lists of changes and the feed know of it follows from here. */
export const fields = {
  title: whole({
    schema: z.string().overwrite(oneLine).max(300, 'At most 300 characters.'),
    kept: z.string(),
    unset: '',
    since: 1,
    name: 'title',
    appears: { feed: ['title', 'itunes:title'], page: 'heading', tag: 'TIT2' },
  }),
  number: whole({
    schema: wholeNumber(1, 99_999),
    kept: z.number().nullable(),
    unset: null,
    since: 1,
    name: 'number',
    appears: { feed: ['itunes:episode'], page: 'before the title', tag: 'TRCK' },
  }),
  season: whole({
    schema: wholeNumber(1, 9_999),
    kept: z.number().nullable(),
    unset: null,
    since: 1,
    name: 'season',
    appears: { feed: ['itunes:season'], page: null, tag: null },
  }),
  kind: whole({
    schema: z.enum(['full', 'trailer', 'bonus']),
    kept: z.enum(['full', 'trailer', 'bonus']),
    unset: 'full',
    since: 1,
    name: 'kind',
    appears: { feed: ['itunes:episodeType'], page: null, tag: null },
  }),
  /** HTML as `core/notes` cleans it, before it is kept; the limit counts for what is left. */
  notes: whole({
    schema: z.string().max(mostNotesCharacters, 'At most 100,000 characters, markup counted.'),
    kept: z.string(),
    unset: '',
    since: 1,
    name: 'notes',
    appears: { feed: ['description', 'content:encoded'], page: 'below the player', tag: 'COMM' },
    shown: plainNotes,
  }),
} as const satisfies Record<string, Field>

type Fields = typeof fields
export type EpisodeField = keyof Fields

/** What a person writes about an episode, and nothing a machine finds out. */
export type EpisodeText = { -readonly [Name in EpisodeField]: z.output<Fields[Name]['schema']> }

export const episodeFields = Object.keys(fields) as readonly EpisodeField[]

/** What may be written, and what is read, a schema for each field. */
export const writtenSchemas = each(field => field.schema) as { [Name in EpisodeField]: Fields[Name]['schema'] }
export const keptSchemas = each(field => field.kept) as { [Name in EpisodeField]: z.ZodType<EpisodeText[Name]> }

/** The text of a new episode. */
export const unsetText = each(field => field.unset) as EpisodeText

/** What a person wrote, out of something that has more. */
export const textOf = (from: EpisodeText): EpisodeText => each((_field, name) => from[name]) as EpisodeText

export const isSameField = (name: EpisodeField, one: EpisodeText, other: EpisodeText): boolean =>
  (fields[name] as Field).isSame(one[name], other[name])

/** The fields in which two texts differ. */
export const differingFields = (one: EpisodeText, other: EpisodeText): EpisodeField[] =>
  episodeFields.filter(name => !isSameField(name, one, other))

function each(of: (field: Field, name: EpisodeField) => unknown): object {
  return Object.fromEntries(
    Object.entries(fields).map(([name, field]) => [name, of(field as Field, name as EpisodeField)]),
  )
}
