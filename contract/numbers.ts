import { z } from 'zod'
import type { Age } from '@core/counting/age'
import type { Band } from '@core/counting/band'
import { type Refusal, refusals, sources } from '@core/counting/count'
import { devices } from '@core/counting/programs'
import { words } from '@core/words/schemas'

const day = z.iso.date()
const shown = z.object({
  rows: z.array(z.object({ name: z.string(), downloads: z.number() })),
  few: z.object({ names: z.number(), downloads: z.number().nullable() }).nullable(),
})
const perDay = z.array(z.object({ day: z.string(), downloads: z.number() }))
const age = z.custom<Age>()
const band = z.custom<Band>()

/** How the figures came about, and how far they go. */
export const countingState = z.object({
  countedAt: z.string().nullable(),
  /** The last day (UTC) of which all that is usual has come in. */
  completeTo: z.string().nullable(),
  /** Until then all in one neighbourhood who have the same program are one listener. */
  coarseUntil: z.string().nullable(),
  programsDated: z.string(),
  placesMadeAt: z.string().nullable(),
  logDays: z.number(),
})

/** Which downloads are asked for; without days all, without an episode those of all. */
export const numbersFilter = z.object({
  from: day.optional(),
  to: day.optional(),
  episode: z.uuid().optional(),
})
export type NumbersFilter = z.output<typeof numbersFilter>

export const showNumbers = z.object({
  state: countingState,
  from: z.string(),
  to: z.string(),
  total: z.number(),
  days: perDay,
  apps: shown,
  devices: shown,
  places: shown,
  sources: z.array(z.object({ source: z.enum(sources), downloads: z.number() })),
  /** By the hour of the week, from Monday at midnight: in the show's zone, and where the listeners are; null for one episode. */
  hours: z.array(z.number()).nullable(),
  localHours: z.array(z.number()).nullable(),
  /** Of episodes in their first thirty days, and of older ones; null for one episode. */
  byEpisodeAge: z.object({ recent: z.number(), older: z.number() }).nullable(),
  /** Listeners that came to no download, by the reason. */
  refusals: z.array(z.object({ refusal: z.enum(refusals), listeners: z.number() })),
  /** An estimate; null for one episode. */
  subscribers: z.array(z.object({ day: z.string(), told: z.number(), fetchers: z.number() })).nullable(),
  marks: z.array(z.object({ id: z.string(), day: z.string(), words: z.string() })),
})
export type ShowNumbers = z.infer<typeof showNumbers>

/** An episode in its first days, or at its age, beside those before it. */
export const ageNumbers = z.object({
  episode: z.object({ id: z.string(), title: z.string(), releasedAt: z.string() }),
  age,
  downloads: z.number(),
  /** All of them, also those since the last whole day. */
  total: z.number(),
  /** What the episodes before it had at this age. */
  usual: band.nullable(),
  /** At the end of each hour or day of its age. */
  curve: z.array(z.number()),
  usualCurve: z.array(band.nullable()),
})
export type AgeNumbers = z.infer<typeof ageNumbers>

/** Null where it is not out. */
export const newestNumbers = z.object({ numbers: ageNumbers.nullable() })

export const heard = z.object({
  fileId: z.string(),
  durationMs: z.number(),
  /** Who began to play it on a page. */
  listeners: z.number(),
  /** Of them, who heard each hundredth of it. */
  parts: z.array(z.number()),
})
export type Heard = z.infer<typeof heard>
/** Of one episode; how far it was heard is null where too few played it on a page to tell. */
export const episodeNumbers = newestNumbers.extend({ heard: heard.nullable() })
export type EpisodeNumbers = z.infer<typeof episodeNumbers>

export const comparedAges = [1, 7, 30, 90] as const
export const mostCompared = 6
export const episodeComparison = z.object({
  episodes: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      number: z.number().nullable(),
      releasedAt: z.string(),
      /** After 1, 7, 30 and 90 days; null where it is not so old. */
      after: z.array(z.number().nullable()),
      total: z.number(),
      /** All until the end of each day since its release, at most so many as the longest age that is compared. */
      curve: z.array(z.number()),
    }),
  ),
})
export type EpisodeComparison = z.infer<typeof episodeComparison>
export const comparisonQuery = z.object({
  episodes: z
    .string()
    .transform(ids => ids.split(','))
    .pipe(z.array(z.uuid()).min(1).max(mostCompared, `At most ${mostCompared} episodes.`)),
})

/** The lines that a figure was made from, a row for each listener, episode and day. */
export const listenerQuery = numbersFilter.extend({
  what: z.enum(['downloads', ...refusals]).default('downloads'),
  app: z.string().max(80).optional(),
  device: z.enum(devices).optional(),
  source: z.enum(sources).optional(),
  after: z.string().max(200).optional(),
})
export type ListenerQuery = z.output<typeof listenerQuery>
const fetchLine = z.object({
  at: z.string(),
  method: z.string(),
  status: z.number(),
  range: z.tuple([z.number(), z.number()]).nullable(),
  bytesSent: z.number().nullable(),
  times: z.number(),
})
export const listenerList = z.object({
  total: z.number(),
  /** The first day of which single fetches are still here; null where none are. */
  keptSince: z.string().nullable(),
  listeners: z.array(
    z.object({
      key: z.string(),
      day: z.string(),
      episodeId: z.string(),
      title: z.string(),
      app: z.string(),
      device: z.enum(devices),
      source: z.enum(sources),
      firstAt: z.string(),
      lastAt: z.string(),
      fetches: z.number(),
      refusal: z.custom<Refusal>().nullable(),
      /** Of the sound, put together, each once. */
      seconds: z.number().nullable(),
      lines: z.array(fetchLine),
    }),
  ),
  /** Where the next page begins; null on the last. */
  next: z.string().nullable(),
})
export type ListenerList = z.infer<typeof listenerList>

export const newMark = z.strictObject({ day, words: words(80) })
