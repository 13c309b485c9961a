import { z } from 'zod'
import { standings } from '@core/release/standing'

const whole = (least: number, most: number) =>
  z.number().int('A whole number.').min(least, `At least ${least}.`).max(most, `At most ${most}.`)

/** What a person writes. Notes come as HTML and are cleaned before they are kept. */
export const episodeText = z.object({
  title: z.string().max(300, 'At most 300 characters.'),
  number: whole(1, 99_999).nullable(),
  season: whole(1, 9_999).nullable(),
  kind: z.enum(['full', 'trailer', 'bonus']),
  notes: z.string().max(100_000, 'At most 100,000 characters, markup counted.'),
})

export const newEpisode = z.object({ title: episodeText.shape.title.optional() })

/** A change names the version it started from; what it does not name stays. */
export const episodeChange = z.object({ version: z.number().int(), text: episodeText.partial() })
export type EpisodeChange = z.infer<typeof episodeChange>

export const finding = z.object({
  weight: z.enum(['must mend', 'worth mending', 'good to know']),
  code: z.string(),
  says: z.string(),
  ifItStays: z.string(),
})

/** What the machine found out about a file. */
export const audioFile = z.object({
  id: z.string(),
  name: z.string(),
  sha256: z.string(),
  bytes: z.number(),
  type: z.string(),
  durationMs: z.number(),
  codec: z.string(),
  bitRateBps: z.number(),
  sampleRateHz: z.number(),
  channels: z.number(),
  tags: z.object({
    title: z.string().nullable(),
    artist: z.string().nullable(),
    album: z.string().nullable(),
    track: z.number().nullable(),
    year: z.number().nullable(),
  }),
  pictureAddress: z.string().nullable(),
  findings: z.array(finding),
  /** Where the studio plays it from; with sign-in. */
  playAddress: z.string(),
  waveformAddress: z.string(),
  /** Other episodes of the show with the very same sound. */
  alsoIn: z.array(z.object({ id: z.string(), title: z.string(), number: z.number().nullable() })),
})
export type AudioFile = z.infer<typeof audioFile>

/** An upload that is not an audio file yet, or will not become one. */
export const upload = z.object({
  id: z.string(),
  fileName: z.string(),
  bytes: z.number(),
  state: z.enum(['receiving', 'reading', 'done', 'refused']),
  refusal: z.object({ title: z.string(), detail: z.string(), todo: z.string() }).nullable(),
})
export type Upload = z.infer<typeof upload>

/** One line of the list. */
export const episodeSummary = z.object({
  id: z.string(),
  title: z.string(),
  number: z.number().nullable(),
  standing: z.enum(standings),
  releaseAt: z.string().nullable(),
  durationMs: z.number().nullable(),
  hasAudio: z.boolean(),
  changedSinceRelease: z.boolean(),
  updatedAt: z.string(),
})
export type EpisodeSummary = z.infer<typeof episodeSummary>

export const episode = episodeSummary.extend({
  showId: z.string(),
  version: z.number(),
  guid: z.string(),
  text: episodeText,
  releaseZone: z.string().nullable(),
  pageAddress: z.string().nullable(),
  enclosureAddress: z.string().nullable(),
  audio: audioFile.nullable(),
  upload: upload.nullable(),
})
export type Episode = z.infer<typeof episode>

/** When: now, or at a wall time in a zone. `second` picks the later one of a time that the clock shows twice. */
export const release = z.object({
  version: z.number().int(),
  when: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('now') }),
    z.object({ kind: z.literal('at'), local: z.string(), zone: z.string(), second: z.boolean().optional() }),
  ]),
})
export type Release = z.infer<typeof release>

export const versioned = z.object({ version: z.number().int() })

/** A text that was refused because another window had saved first, as it is kept. */
export const keptText = z.object({ id: z.string(), savedAt: z.string(), text: episodeText.partial() })
export type KeptText = z.infer<typeof keptText>
