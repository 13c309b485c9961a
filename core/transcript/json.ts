import { longestSoundMs } from '../episode/fields'
import { type Cue, longestSpeaker, NoTranscript, type Reading, remark, timeToSay, type Transcript } from './cue'

interface Segment {
  speaker?: unknown
  startTime?: unknown
  endTime?: unknown
  body?: unknown
}

/** The names of the same things where no standard was looked at. */
interface Loose {
  start?: unknown
  end?: unknown
  text?: unknown
}

/**
 * Reads transcript JSON of the podcast namespace (its transcript page, from memory): `segments` with `startTime` and
 * `endTime` in seconds, `speaker` and `body`; and what many programs write in their place, a list with `start`, `end` and
 * `text` (common practice, no source). Times that are missing are what stands beside them.
 */
export function readJson(words: string): Reading {
  const segments = segmentsOf(words)
  const seconds = (value: unknown): number | null => {
    const number = typeof value === 'string' && value.trim() !== '' ? Number(value) : value
    const ms = typeof number === 'number' ? Math.round(number * 1000) : -1
    return ms >= 0 && ms < longestSoundMs ? ms : null
  }
  const begins = segments.map(({ startTime }) => seconds(startTime))
  let missing = 0
  const cues = segments.map(({ speaker, endTime, body }, at): Cue => {
    const fromMs = begins[at] ?? seconds(segments[at - 1]?.endTime)
    const toMs = seconds(endTime) ?? begins[at + 1] ?? (fromMs === null ? null : fromMs + timeToSay(String(body)))
    if (begins[at] == null || seconds(endTime) === null) missing++
    const isKnown = fromMs !== null && toMs !== null
    return {
      id: `c${at + 1}`,
      fromMs: isKnown ? fromMs : null,
      toMs: isKnown ? toMs : null,
      speaker: typeof speaker === 'string' ? speaker.trim().slice(0, longestSpeaker) || null : null,
      text: String(body),
    }
  })
  const remarks = remark(
    missing,
    'One of its parts lacked a time; it was taken from those beside it.',
    'of its parts lacked a time; it was taken from those beside them.',
  )
  return { transcript: { cues }, remarks }
}

function segmentsOf(words: string): Segment[] {
  let told: unknown
  try {
    told = JSON.parse(words)
  } catch {
    throw new NoTranscript('It begins like JSON, and is none.')
  }
  const segments: unknown = Array.isArray(told) ? told : (told as { segments?: unknown } | null)?.segments
  if (!Array.isArray(segments)) throw new NoTranscript('JSON of a transcript has a list of “segments”; this has none.')
  return segments.map((each: (Segment & Loose) | null, at) => {
    const body = each?.body ?? each?.text
    if (typeof body !== 'string')
      throw new NoTranscript(`Part ${at + 1} of the “segments” has no “body” with its words.`)
    return {
      speaker: each!.speaker,
      startTime: each!.startTime ?? each!.start,
      endTime: each!.endTime ?? each!.end,
      body,
    }
  })
}

/** Writes transcript JSON. Words that nobody knows the time of have none. */
export const writeJson = ({ cues }: Pick<Transcript, 'cues'>): string =>
  JSON.stringify({
    version: '1.0.0',
    segments: cues.map(({ speaker, fromMs, toMs, text }) => ({
      ...(speaker && { speaker }),
      ...(fromMs !== null && { startTime: fromMs / 1000 }),
      ...(toMs !== null && { endTime: toMs / 1000 }),
      body: text,
    })),
  })
