import { coveredBytes, type Span, withSpan } from './spans'

/**
 * Downloads are counted by the rules of the advertising industry's published podcast measurement guidelines, version 2.2 (from
 * memory; each rule is named where it is applied).
 */

/** What was asked for and answered, of an episode's audio. */
export interface Fetch {
  at: Date
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
}

/** The sound in a file: where it lies, tags and pictures at its head left out, and how many bytes of it are a minute. */
export interface FileSound {
  audio: Span
  minuteBytes: number
}

/** Why a fetch is not one that a download can be made of. */
export type Refusal = 'only asked' | 'not answered' | 'unchanged' | 'robot' | 'unknown file'

/** What one listener has fetched of an episode on a day (UTC): until a minute of it is there it is no download. */
export interface OpenDownload {
  episodeId: string
  day: string
  who: string
  /** By file. */
  spans: Readonly<Record<string, readonly Span[]>>
  /** Of its earliest fetch: the download belongs to that hour. */
  firstAt: Date
}

/** A download more or, where one turns out to have begun in another hour, fewer. */
export interface Step {
  episodeId: string
  /** Its beginning (UTC). */
  hour: Date
  by: 1 | -1
}

export type OpenDownloads = ReadonlyMap<string, OpenDownload>

export interface Counted {
  open: OpenDownloads
  steps: Step[]
}

const hourMs = 3600_000

/** A day is over for counting so long after its end: until then lines may come late. */
const completeAfterMs = 2 * hourMs

const dayOf = (at: Date): string => at.toISOString().slice(0, 10)
const hourOf = (at: Date): Date => new Date(Math.floor(+at / hourMs) * hourMs)
const keyOf = ({ episodeId, at, who }: Fetch): string => `${dayOf(at)} ${episodeId} ${who}`

/** Why a fetch cannot be of a download; null where it can. */
export function refusalOf({ method, status, isRobot }: Fetch, sound: FileSound | undefined): Refusal | null {
  // Guidelines: robots and data centres are taken out before anything is counted.
  if (isRobot) return 'robot'
  // Guidelines: only GET; HEAD asks what there would be.
  if (method !== 'GET') return 'only asked'
  if (status === 304) return 'unchanged'
  if (status !== 200 && status !== 206) return 'not answered'
  return sound ? null : 'unknown file'
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
const isDownload = ({ spans }: OpenDownload, soundOf: (fileId: string) => FileSound | undefined): boolean =>
  Object.entries(spans).some(([fileId, of]) => {
    const sound = soundOf(fileId)
    if (!sound) return false
    const wanted = Math.min(sound.minuteBytes, sound.audio[1] - sound.audio[0] + 1)
    return wanted > 0 && coveredBytes(of, sound.audio) >= wanted
  })

/**
 * Counts a stretch of the log after what was counted before: the sum of all steps is the same however the log is cut into
 * stretches, in whatever order its lines come, and however often one comes again (but for who fetches one file in more pieces than
 * are told apart). Guidelines: one download for each listener, episode and day.
 *
 * @param open what was fetched before, of days that are not over
 */
export function count(
  open: OpenDownloads,
  fetches: readonly Fetch[],
  soundOf: (fileId: string) => FileSound | undefined,
): Counted {
  const now = new Map(open)
  const touched = new Map<string, OpenDownload | undefined>()
  for (const fetch of fetches) {
    const sound = soundOf(fetch.fileId)
    const sent = !refusalOf(fetch, sound) && sentSpan(fetch, sound!)
    if (!sent) continue
    const key = keyOf(fetch)
    const before = now.get(key)
    if (!touched.has(key)) touched.set(key, before)
    now.set(key, {
      episodeId: fetch.episodeId,
      day: dayOf(fetch.at),
      who: fetch.who,
      spans: { ...before?.spans, [fetch.fileId]: withSpan(before?.spans[fetch.fileId] ?? [], sent) },
      firstAt: before && before.firstAt < fetch.at ? before.firstAt : fetch.at,
    })
  }
  const steps = [...touched].flatMap(([key, before]): Step[] => {
    const after = now.get(key)!
    const [was, is] = [before && isDownload(before, soundOf) && before, isDownload(after, soundOf) && after]
    if (was && is && +hourOf(was.firstAt) === +hourOf(is.firstAt)) return []
    return [
      ...(was ? [{ episodeId: was.episodeId, hour: hourOf(was.firstAt), by: -1 as const }] : []),
      ...(is ? [{ episodeId: is.episodeId, hour: hourOf(is.firstAt), by: 1 as const }] : []),
    ]
  })
  return { open: now, steps }
}

/** What is left open once the days that are complete by a moment are closed. */
export const stillOpen = (open: OpenDownloads, now: Date): OpenDownloads =>
  new Map([...open].filter(([, { day }]) => +now < Date.parse(`${day}T00:00:00Z`) + 24 * hourMs + completeAfterMs))
