import type { Device } from './programs'
import { coveredBytes, type Span, withSpan } from './spans'

/**
 * Downloads are counted by the rules of the advertising industry's published podcast measurement guidelines, version 2.2 (from
 * memory; each rule is named where it is applied).
 */

/** Where a fetch came from. What the studio plays is never asked for at these addresses. */
export const sources = ['feed', 'page', 'frame', 'private'] as const
export type Source = (typeof sources)[number]

/** What is told apart in sums, and tells nobody. */
export interface Traits {
  app: string
  device: Device
  /** A country (ISO 3166-1 alpha-2), with a region behind a stroke where it is known; null where nothing is. */
  place: string | null
  source: Source
}

/** What was asked for and answered, of an episode's audio. */
export interface Fetch {
  at: Date
  showId: string
  episodeId: string
  /** The file that was sent; an episode can get another one. */
  fileId: string
  method: 'GET' | 'HEAD'
  status: number
  /** Null where a proxy sent them and does not tell. */
  bytesSent: number | null
  /** What of the file was asked for; null where the whole was. */
  range: Span | null
  /** Stands for an address and a program, and for no longer than its day. */
  who: string
  isRobot: boolean
  /** Whether it came from a data centre. */
  isHosted: boolean
  /** Whether a browser asked before anybody pressed play, and said so. */
  isPrefetch: boolean
  /** How many such lines were one. */
  times: number
  traits: Traits
}

/** The sound in a file: where it lies, tags and pictures at its head left out, and how many bytes of it are a minute. */
export interface FileSound {
  audio: Span
  minuteBytes: number
}

/** Why no download is made of fetches, the first that holds. */
export const refusals = [
  'robot',
  'hosted',
  'prefetch',
  'unknown-file',
  'head',
  'unchanged',
  'no-answer',
  'under-a-minute',
] as const
export type Refusal = (typeof refusals)[number]

/** What one listener has fetched of an episode on a day (UTC): until a minute of it is there it is no download. */
export interface ListenerDay {
  showId: string
  episodeId: string
  day: string
  who: string
  /** By file. */
  spans: Readonly<Record<string, readonly Span[]>>
  /** Of its earliest fetch: the download belongs to that hour, and has its traits. */
  firstAt: Date
  lastAt: Date
  traits: Traits
  fetches: number
  /** Null for a download. */
  refusal: Refusal | null
}

/**
 * One more that a listener, an episode and a day came to: a download, or a refusal. Where it turns out to be another, or to have
 * begun in another hour or elsewhere, what it was is one fewer.
 */
export interface Step {
  showId: string
  episodeId: string
  /** The beginning of its hour (UTC). */
  hour: Date
  traits: Traits
  /** Null for a download. */
  refusal: Refusal | null
  by: 1 | -1
}

export type ListenerDays = ReadonlyMap<string, ListenerDay>

export interface Counted {
  /** What was added, and what is another now. */
  changed: ListenerDays
  steps: Step[]
}

const hourMs = 3600_000
const dayMs = 24 * hourMs

/** A day is complete so long after its end: until then lines come late as a rule. */
const completeAfterMs = 2 * hourMs

const dayStarts = new Map<number, string>()
/** The UTC day of a moment, as ISO 8601 writes it. */
export function dayOf(at: Date): string {
  const number = Math.floor(+at / dayMs)
  let day = dayStarts.get(number)
  if (day === undefined) {
    if (dayStarts.size > 1_000) dayStarts.clear()
    day = new Date(number * dayMs).toISOString().slice(0, 10)
    dayStarts.set(number, day)
  }
  return day
}
export const hourOf = (at: Date): Date => new Date(Math.floor(+at / hourMs) * hourMs)
/** What is one for counting: a listener, an episode, a day. */
export const listenerDayKey = ({ episodeId, day, who }: Pick<ListenerDay, 'episodeId' | 'day' | 'who'>): string =>
  `${day} ${episodeId} ${who}`

/** Fetches of each listener, episode and day, by {@link listenerDayKey}. */
export type FetchesByDay = ReadonlyMap<string, readonly Fetch[]>

export function byListenerDay(fetches: readonly Fetch[]): FetchesByDay {
  const days = new Map<string, Fetch[]>()
  for (const fetch of fetches) {
    const key = listenerDayKey({ day: dayOf(fetch.at), episodeId: fetch.episodeId, who: fetch.who })
    const day = days.get(key)
    if (day) day.push(fetch)
    else days.set(key, [fetch])
  }
  return days
}

/** Whether all that is usual has come in of a day. */
export const isComplete = (day: string, now: Date): boolean =>
  +now >= Date.parse(`${day}T00:00:00Z`) + dayMs + completeAfterMs

/** Why a fetch cannot be of a download; null where it can. */
export function refusalOf(
  { method, status, isRobot, isHosted, isPrefetch }: Fetch,
  sound: FileSound | undefined,
): Refusal | null {
  // Guidelines: robots and data centres are taken out before anything is counted.
  if (isRobot) return 'robot'
  if (isHosted) return 'hosted'
  // Guidelines: what a page loads before anybody presses play is left out.
  if (isPrefetch) return 'prefetch'
  if (!sound) return 'unknown-file'
  // Guidelines: only GET; HEAD asks what there would be.
  if (method !== 'GET') return 'head'
  if (status === 304) return 'unchanged'
  return status === 200 || status === 206 ? null : 'no-answer'
}

/** The bytes of the file that went out; null where none did. */
function sentSpan({ range, bytesSent }: Fetch, { audio }: FileSound): Span | null {
  const [first, last] = range ?? [0, audio[1]]
  const end = bytesSent === null ? last : Math.min(last, first + bytesSent - 1)
  return end < first ? null : [first, end]
}

/**
 * Whether it is a download by now. Guidelines: a minute of the sound, or all of it where it is shorter, in however many pieces;
 * what was fetched twice counts once; tags and pictures at the head of a file are no sound.
 */
const hasMinute = (spans: ListenerDay['spans'], soundOf: (fileId: string) => FileSound | undefined): boolean =>
  Object.entries(spans).some(([fileId, of]) => {
    const sound = soundOf(fileId)
    if (!sound) return false
    const wanted = Math.min(sound.minuteBytes, sound.audio[1] - sound.audio[0] + 1)
    return wanted > 0 && coveredBytes(of, sound.audio) >= wanted
  })

/** The same whichever of two comes first. */
const words = ({ app, device, place, source }: Traits): string => `${app} ${device} ${place} ${source}`
const isEarlier = (one: Fetch, { firstAt, traits }: ListenerDay): boolean =>
  +one.at === +firstAt ? words(one.traits) < words(traits) : one.at < firstAt

type Open = { -readonly [Name in keyof ListenerDay]: ListenerDay[Name] } & { spans: Record<string, readonly Span[]> }

const opened = ({ showId, episodeId, at, who, traits }: Fetch): Open => ({
  showId,
  episodeId,
  day: dayOf(at),
  who,
  spans: {},
  firstAt: at,
  lastAt: at,
  traits,
  fetches: 0,
  refusal: refusals[0],
})

/** Puts a fetch to what the same listener fetched before. */
function put(fetch: Fetch, to: Open, sound: FileSound | undefined): void {
  const refused = refusalOf(fetch, sound)
  const sent = refused ? null : sentSpan(fetch, sound!)
  if (sent) to.spans[fetch.fileId] = withSpan(to.spans[fetch.fileId] ?? [], sent)
  if (isEarlier(fetch, to)) {
    to.firstAt = fetch.at
    to.traits = fetch.traits
  }
  if (fetch.at > to.lastAt) to.lastAt = fetch.at
  to.fetches += fetch.times
  if (to.refusal && refused !== to.refusal) {
    const nearest = Math.max(refusals.indexOf(to.refusal), refusals.indexOf(refused ?? 'under-a-minute'))
    to.refusal = refusals[nearest]!
  }
}

const isSame = (one: ListenerDay, other: ListenerDay): boolean =>
  one.refusal === other.refusal &&
  +hourOf(one.firstAt) === +hourOf(other.firstAt) &&
  words(one.traits) === words(other.traits)

const stepOf = ({ showId, episodeId, firstAt, traits, refusal }: ListenerDay, by: Step['by']): Step => ({
  showId,
  episodeId,
  hour: hourOf(firstAt),
  traits,
  refusal,
  by,
})

/**
 * Counts a stretch of the log after what was counted before: the sum of all steps is the same however the log is cut into
 * stretches, and in whatever order its lines come (but for who fetches one file in more pieces than are told apart).
 * Guidelines: one download for each listener, episode and day.
 *
 * @param before what the same listeners fetched before on those days
 */
export function count(
  before: ListenerDays,
  fetched: FetchesByDay,
  soundOf: (fileId: string) => FileSound | undefined,
): Counted {
  const changed = new Map<string, ListenerDay>()
  const steps: Step[] = []
  for (const [key, fetches] of fetched) {
    const was = before.get(key)
    const is: Open = was ? { ...was, spans: { ...was.spans } } : opened(fetches[0]!)
    for (const fetch of fetches) put(fetch, is, soundOf(fetch.fileId))
    if (is.refusal && hasMinute(is.spans, soundOf)) is.refusal = null
    changed.set(key, is)
    if (was && isSame(was, is)) continue
    if (was) steps.push(stepOf(was, -1))
    steps.push(stepOf(is, 1))
  }
  return { changed, steps }
}
