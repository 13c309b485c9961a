import { filmAddress, filmRule, isFilmAddress, mostFilmCharacters } from '../film/address'
import { deepEqual } from 'fast-equals'
import { z } from 'zod'
import { plainNotes } from '../notes/plain'
import { personRoles } from '../people/roles'
import { tagKey } from '../tags/tags'
import { clock } from '../words/amounts'
import { fold } from '../words/fold'
import { letters, oneLine } from '../words/line'
import { line, pictureId, webAddress, words } from '../words/schemas'
import { keptMix, mixDocument } from '../mix/document'
import { shownMix } from '../mix/shown'
import { type Field, list, listOrNone, listsOrNone, parts, whole } from './field'

const wholeNumber = (least: number, most: number) =>
  z.number().int('A whole number.').min(least, `At least ${least}.`).max(most, `At most ${most}.`).nullable()

export const mostNotesCharacters = 100_000

export const mostHookLetters = 255
const mostTags = 100
const mostPeople = 100
const mostLinks = 500

const person = z.object({
  name: words(120),
  role: z.enum(personRoles),
  address: webAddress.nullable(),
  /** Null, or not told by what was kept before people had pictures: none. */
  pictureId: pictureId.nullable().optional(),
})
/** Somebody who has a part in an episode. */
export type Person = z.output<typeof person>
const withPicture = (kept: Person): Person => ({ ...kept, pictureId: kept.pictureId ?? null })
export const personKey = ({ name, role }: Pick<Person, 'name' | 'role'>): string => `${fold(name)} · ${role}`

const link = z.object({ words: line(300), address: webAddress })
/** A link that lies ready for the notes. */
export type Link = z.output<typeof link>

/** The longest sound that is taken for one, 1,000 hours. */
export const longestSoundMs = 3_600_000_000

export const mostChapters = 999

const chapter = z.object({
  /** Tells it from others while its time and title change. */
  id: z.string().regex(/^[\w-]{1,40}$/, 'Up to 40 letters a to z, digits and hyphens.'),
  /** By the clock of the source. */
  fromMs: z.number().int('A whole number.').min(0, 'At least 0.').max(longestSoundMs, 'At most 1,000 hours.'),
  title: line(300),
  address: webAddress.nullable(),
  pictureId: pictureId.nullable(),
  /** Whether lists of chapters show it. */
  isListed: z.boolean(),
})
/** A part of an episode that listeners can go to. */
export type Chapter = z.output<typeof chapter>

export const mostSoundbites = 30
/** Shorter, nothing is heard; and longer, nothing is a bite. */
export const shortestSoundbiteMs = 1_000
export const longestSoundbiteMs = 10 * 60_000
const mostSoundbiteTitle = 128

const soundbite = z
  .object({
    /** Tells it from others while it is moved, and names its file. */
    id: z.string().regex(/^[\w-]{1,40}$/, 'Up to 40 letters a to z, digits and hyphens.'),
    /** By the clock of the source. */
    fromMs: z.number().int('A whole number.').min(0, 'At least 0.').max(longestSoundMs, 'At most 1,000 hours.'),
    toMs: z.number().int('A whole number.').min(0, 'At least 0.').max(longestSoundMs, 'At most 1,000 hours.'),
    /** Empty where the episode's is used. */
    title: line(mostSoundbiteTitle),
  })
  .refine(({ fromMs, toMs }) => toMs - fromMs >= shortestSoundbiteMs, 'It ends a second or more after it begins.')
  .refine(({ fromMs, toMs }) => toMs - fromMs <= longestSoundbiteMs, 'At most ten minutes long.')
/** A stretch of an episode that stands for it: to be heard before, and to be passed on. */
export type Soundbite = z.output<typeof soundbite>

/** What speaks about an episode in public is found by one of these, of the podcast namespace's list; others by their address alone. */
export const discussionProtocols = ['activitypub', 'atproto'] as const

/** podcast namespace, episode: what is shown in its place is at most so long. */
const mostNumberShown = 32

/** One of the extras: what may be written, what is read, what it is at first, the elements of the feed that tell it, and its words. */
interface Extra<Value> {
  schema: z.ZodType<Value>
  kept: z.ZodType<Value>
  unset: Value
  feed: readonly string[]
  shown: (value: Value) => string
}
const extra = <Value>(one: Extra<Value>): Extra<Value> => one
const optionalWords = (schema: z.ZodType<string>, feed: readonly string[]): Extra<string | null> => ({
  schema: schema.nullable(),
  kept: z.string().nullable(),
  unset: null,
  feed,
  shown: value => value ?? '',
})
/** One that was not told by what was kept before there was this. */
const added = <Value>({ schema, kept, shown, ...one }: Extra<Value>): Extra<Value | undefined> => ({
  ...one,
  schema: schema.optional(),
  kept: kept.optional(),
  shown: value => (value === undefined ? '' : shown(value)),
})

/** What is usually as the show has it, or is not there. */
const extras = {
  explicit: extra<boolean | null>({
    schema: z.boolean().nullable(),
    kept: z.boolean().nullable(),
    unset: null,
    feed: ['itunes:explicit'],
    shown: is => (is === null ? '' : is ? 'explicit' : 'not explicit'),
  }),
  author: optionalWords(words(120), ['dc:creator', 'itunes:author']),
  page: optionalWords(webAddress, ['link']),
  discussion: optionalWords(webAddress, ['comments', 'podcast:socialInteract']),
  /** Null: a page like any other. */
  discussionProtocol: added(
    extra<(typeof discussionProtocols)[number] | null>({
      schema: z.enum(discussionProtocols).nullable(),
      kept: z.enum(discussionProtocols).nullable(),
      unset: null,
      feed: [],
      shown: protocol => protocol ?? '',
    }),
  ),
  /** What apps show in the place of the number. */
  numberShown: added({
    ...optionalWords(words(mostNumberShown), ['podcast:episode']),
    shown: value => (value ? `shown as “${value}”` : ''),
  }),
  /** A film of it that lives elsewhere. */
  film: added(
    optionalWords(
      z
        .string()
        .max(mostFilmCharacters, 'At most 20,000 characters.')
        .overwrite(filmAddress)
        .refine(isFilmAddress, filmRule),
      [],
    ),
  ),
  isPromotion: extra<boolean>({
    schema: z.boolean(),
    kept: z.boolean(),
    unset: false,
    feed: [],
    shown: is => (is ? 'paid promotion' : ''),
  }),
  licence: optionalWords(words(128), ['podcast:license']),
  place: optionalWords(words(128), ['podcast:location']),
}
type Extras = { [Name in keyof typeof extras]: (typeof extras)[Name]['unset'] }
const eachExtra = <Of>(of: (one: Extra<never>, name: keyof Extras) => Of): Record<keyof Extras, Of> =>
  Object.fromEntries(
    Object.entries(extras).map(([name, one]) => [name, of(one as object as Extra<never>, name as keyof Extras)]),
  ) as Record<keyof Extras, Of>
const extrasSchema = <Which extends 'schema' | 'kept'>(which: Which) =>
  z.object(eachExtra(one => one[which]) as { [Name in keyof Extras]: (typeof extras)[Name][Which] })
const unsetExtras = eachExtra(({ unset }) => unset) as Extras

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
    appears: { feed: ['itunes:episode', 'podcast:episode'], page: 'before the title', tag: 'TRCK' },
  }),
  season: whole({
    schema: wholeNumber(1, 9_999),
    kept: z.number().nullable(),
    unset: null,
    since: 1,
    name: 'season',
    appears: { feed: ['itunes:season'], page: 'beside the date', tag: null },
  }),
  kind: whole({
    schema: z.enum(['full', 'trailer', 'bonus']),
    kept: z.enum(['full', 'trailer', 'bonus']),
    unset: 'full',
    since: 1,
    name: 'kind',
    appears: { feed: ['itunes:episodeType'], page: null, tag: null },
  }),
  /** One line that says why to listen. */
  hook: whole({
    schema: z
      .string()
      .overwrite(oneLine)
      .max(4000, 'At most 255 letters.')
      .refine(hook => letters(hook) <= mostHookLetters, 'At most 255 letters.'),
    kept: z.string(),
    unset: '',
    since: 2,
    name: 'hook',
    appears: { feed: ['itunes:subtitle', 'itunes:summary'], page: 'under the title', tag: 'TIT3' },
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
  tags: list(
    {
      schema: uniqueList(words(60), mostTags, 'tags', tagKey),
      kept: z.array(z.string()),
      unset: [],
      since: 2,
      name: 'tags',
      appears: { feed: ['category', 'itunes:keywords'], page: 'below the notes', tag: 'TXXX' },
      shown: tags => tags.join(', '),
    },
    tagKey,
  ),
  people: list(
    {
      schema: uniqueList(person, mostPeople, 'people', personKey),
      kept: z.array(person),
      unset: [],
      since: 2,
      name: 'people',
      appears: { feed: ['podcast:person'], page: 'below the notes', tag: 'TXXX' },
      shown: people => people.map(({ name, role }) => `${name} (${role})`).join(', '),
      isSame: (one, other) => deepEqual(one.map(withPicture), other.map(withPicture)),
    },
    personKey,
  ),
  /** Prepared before, for the notes; they go out only as what the notes make of them. */
  links: list(
    {
      schema: uniqueList(link, mostLinks, 'links', each => each.address),
      kept: z.array(link),
      unset: [],
      since: 2,
      name: 'links at hand',
      appears: { feed: [], page: 'below the notes', tag: null },
      shown: links => links.map(each => each.words || each.address).join(', '),
    },
    ({ address: key }: Link) => key,
  ),
  /** Null where they are not its own but follow the times in its notes, or what the file brings. */
  chapters: listOrNone(
    {
      schema: uniqueList(chapter, mostChapters, 'chapters', each => each.id).nullable(),
      kept: z.array(chapter).nullable(),
      unset: null as Chapter[] | null,
      since: 3,
      name: 'chapters',
      appears: { feed: ['podcast:chapters'], page: 'below the player', tag: 'CHAP' },
      shown: chapters => (chapters ?? []).map(({ fromMs, title }) => `${clock(fromMs)} ${title}`).join(', '),
    },
    ({ id }: Chapter) => id,
  ),
  soundbites: list(
    {
      schema: uniqueList(soundbite, mostSoundbites, 'soundbites', each => each.id),
      kept: z.array(soundbite),
      unset: [],
      since: 4,
      name: 'soundbites',
      appears: { feed: ['podcast:soundbite'], page: 'below the player', tag: null },
      shown: soundbites =>
        soundbites.map(({ fromMs, toMs, title }) => `${clock(fromMs)} to ${clock(toMs)} ${title}`.trim()).join(', '),
    },
    ({ id }: Soundbite) => id,
  ),
  /** What its sound is put together of here; null where it comes as one file. */
  mix: listsOrNone(
    {
      schema: mixDocument.nullable(),
      kept: keptMix.nullable(),
      unset: null,
      since: 5,
      name: 'pieces and beds',
      appears: { feed: [], page: null, tag: null },
      shown: mix => (mix ? shownMix(mix) : ''),
    },
    ['pieces', 'beds'],
  ),
  /** A picture of its own, cut as the show's; null where the show's is used. */
  artworkId: whole({
    schema: pictureId.nullable(),
    kept: z.string().nullable(),
    unset: null,
    since: 2,
    name: 'artwork',
    appears: { feed: ['itunes:image'], page: 'beside the title', tag: 'APIC' },
    shown: id => (id ? 'a picture of its own' : ''),
  }),
  extras: parts({
    schema: extrasSchema('schema'),
    kept: extrasSchema('kept'),
    unset: unsetExtras,
    since: 2,
    name: 'extras',
    appears: { feed: Object.values(extras).flatMap(({ feed }) => feed), page: 'at its end', tag: 'TPE1' },
    shown: value =>
      Object.values(eachExtra(({ shown }, name) => shown(value[name] as never)))
        .filter(Boolean)
        .join(', '),
    isSame: (one, other) => deepEqual({ ...unsetExtras, ...one }, { ...unsetExtras, ...other }),
  }),
} as const satisfies Record<string, Field>

function uniqueList<Entry extends z.ZodType>(
  entry: Entry,
  most: number,
  name: string,
  keyOf: (value: z.output<Entry>) => string,
) {
  return z
    .array(entry)
    .max(most, `At most ${most} ${name}.`)
    .refine(all => new Set(all.map(keyOf)).size === all.length, `Each of the ${name} once.`)
}

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

/** The ids of all pictures in a text. */
export const picturesIn = ({ artworkId, people, chapters }: EpisodeText): string[] => [
  ...new Set([artworkId, ...[...people, ...(chapters ?? [])].map(each => each.pictureId)].filter(id => id != null)),
]
