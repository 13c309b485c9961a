import { type Cue, longestSpeaker, NoTranscript, type Reading, type Transcript } from './cue'

interface Segment {
  speaker?: unknown
  startTime?: unknown
  endTime?: unknown
  body?: unknown
}

/**
 * Reads transcript JSON of the podcast namespace (its transcript page, from memory): `segments` with `startTime` and
 * `endTime` in seconds, `speaker` and `body`. Times that are missing are what stands beside them.
 */
export function readJson(words: string): Reading {
  const segments = segmentsOf(words)
  const seconds = (value: unknown): number | null => {
    const number = typeof value === 'string' && value.trim() !== '' ? Number(value) : value
    return typeof number === 'number' && Number.isFinite(number) && number >= 0 ? Math.round(number * 1000) : null
  }
  const begins = segments.map(({ startTime }) => seconds(startTime))
  let missing = 0
  const cues = segments.map(({ speaker, endTime, body }, at): Cue => {
    const fromMs = begins[at] ?? seconds(segments[at - 1]?.endTime)
    const toMs = seconds(endTime) ?? begins[at + 1] ?? null
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
  const remarks = missing > 0 ? [`${missing} of its parts lacked a time; it was taken from those beside them.`] : []
  return { transcript: { cues }, remarks }
}

function segmentsOf(words: string): Segment[] {
  let told: unknown
  try {
    told = JSON.parse(words)
  } catch {
    throw new NoTranscript('It begins like JSON, and is none.')
  }
  const segments: unknown = (told as { segments?: unknown } | null)?.segments
  if (!Array.isArray(segments)) throw new NoTranscript('JSON of a transcript has a list of “segments”; this has none.')
  const broken = segments.findIndex((each: Segment | null) => typeof each?.body !== 'string')
  if (broken >= 0) throw new NoTranscript(`Part ${broken + 1} of the “segments” has no “body” with its words.`)
  return segments as Segment[]
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
