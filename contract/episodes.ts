import { z } from 'zod'
import { standings } from '@core/release/standing'
import { oneLine } from '@core/words/line'
import { sound, words } from './sound'

const whole = (least: number, most: number) =>
  z.number().int('A whole number.').min(least, `At least ${least}.`).max(most, `At most ${most}.`)

export const mostNotesCharacters = 100_000

/** What a person writes. Notes come as HTML and are cleaned before they are kept; their limit counts for what is left. */
export const episodeText = z.object({
  title: z.string().overwrite(oneLine).max(300, 'At most 300 characters.'),
  number: whole(1, 99_999).nullable(),
  season: whole(1, 9_999).nullable(),
  kind: z.enum(['full', 'trailer', 'bonus']),
  notes: z.string().max(mostNotesCharacters, 'At most 100,000 characters, markup counted.'),
})

/** The same as it is kept: what was kept before a rule became stricter is told all the same. */
const keptEpisodeText = z.object({
  title: z.string(), number: z.number().nullable(), season: z.number().nullable(), kind: episodeText.shape.kind, notes: z.string(),
})

export const newEpisode = z.object({ title: episodeText.shape.title.optional() })

/** The version that a window has seen. */
const version = z.int32('A whole number.').min(0, 'At least 0.')

/** A change names the version it started from; what it does not name stays. */
export const episodeChange = z.object({ version, text: episodeText.partial() })
export type EpisodeChange = z.infer<typeof episodeChange>

/** An upload that is not an audio file yet, or will not become one. */
export const upload = z.object({
  id: z.string(),
  fileName: z.string(),
  bytes: z.number(),
  state: z.enum(['receiving', 'reading', 'done', 'refused']),
  refusal: words.nullable(),
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
  /** The name of a file that is on its way to become its audio. */
  arriving: z.string().nullable(),
  /** Its recipe asks for a finished file that is not there yet. */
  awaitsFinish: z.boolean(),
  changedSinceRelease: z.boolean(),
  updatedAt: z.string(),
})
export type EpisodeSummary = z.infer<typeof episodeSummary>

export const episode = episodeSummary.extend({
  showId: z.string(),
  version: z.number(),
  guid: z.string(),
  text: keptEpisodeText,
  releaseZone: z.string().nullable(),
  pageAddress: z.string().nullable(),
  enclosureAddress: z.string().nullable(),
  sound,
  upload: upload.nullable(),
})
export type Episode = z.infer<typeof episode>

/** When: now, or at a wall time in a zone. `second` picks the later one of a time that the clock shows twice. */
export const release = z.object({
  version,
  when: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('now') }),
    z.object({ kind: z.literal('at'), local: z.string().max(40), zone: z.string().max(64, 'At most 64 characters.'), second: z.boolean().optional() }),
  ]),
})
export type Release = z.infer<typeof release>

export const versioned = z.object({ version })

/** A text that was refused because another window had saved first, as it is kept. */
export const keptText = z.object({ id: z.string(), savedAt: z.string(), text: keptEpisodeText.partial() })
export type KeptText = z.infer<typeof keptText>
