import { z } from 'zod'
import { keptSchemas, writtenSchemas } from '@core/episode/fields'
import type { Numbering } from '@core/episode/numbering'
import { hindrances } from '@core/release/readiness'
import { statuses } from '@core/release/status'
import { writer } from './history'
import { upload, version } from './sound'

/** What a person writes. Notes come as HTML and are cleaned before they are kept; their limit counts for what is left. */
export const episodeText = z.object(writtenSchemas)

/** The same as it is kept: what was kept before a rule became stricter is told all the same. */
const keptEpisodeText = z.object(keptSchemas)

/**
 * Whoever begins one may say by which id, and then asks again without beginning another where no answer came; made as RFC 9562
 * section 5.7 says, so that those begun later come later.
 */
export const newEpisode = z.object({
  id: z.uuidv7('An id of its own, as a UUID of version 7.').optional(),
  title: episodeText.shape.title.optional(),
})
export type NewEpisode = z.infer<typeof newEpisode>

/** A change names the version it started from; what it does not name stays. */
export const episodeChange = z.object({ version, text: episodeText.partial() })
export type EpisodeChange = z.infer<typeof episodeChange>

/** One line of the list. */
export const episodeSummary = z.object({
  id: z.string(),
  version: z.number(),
  title: z.string(),
  number: z.number().nullable(),
  status: z.enum(statuses),
  releaseAt: z.string().nullable(),
  durationMs: z.number().nullable(),
  hasAudio: z.boolean(),
  /** The name of a file that is on its way to become its audio. */
  arriving: z.string().nullable(),
  /** What keeps it from going out at this moment. */
  hindrances: z.array(z.enum(hindrances)),
  changedSinceRelease: z.boolean(),
  updatedAt: z.string(),
})
export type EpisodeSummary = z.infer<typeof episodeSummary>

/** Which part of a list: of one status or all, with words in the title or a number, behind a page that was had before. */
export const listQuery = z.object({
  status: z.enum(statuses).optional(),
  find: z.string().trim().max(300, 'At most 300 characters.').optional(),
  /** The `after` of the page before. */
  after: z.string().max(100).optional(),
  limit: z.coerce.number().int('A whole number.').min(1, 'At least 1.').max(100, 'At most 100.').default(50),
})
export type ListQuery = z.infer<typeof listQuery>

/** A page of a list, and how many there are in all. Drafts come newest first, scheduled ones as they go out, released and retired ones newest first. */
export const episodePage = z.object({
  episodes: z.array(episodeSummary),
  total: z.number(),
  after: z.string().nullable(),
})
export type EpisodePage = z.infer<typeof episodePage>

/** What is near now of each status. */
export const episodesNear = z.object({
  draft: episodePage,
  scheduled: episodePage,
  released: episodePage,
  retired: episodePage,
  changed: z.array(episodeSummary),
})
export type EpisodesNear = z.infer<typeof episodesNear>

const numbered = z.object({ title: z.string(), number: z.number() })
const numbering: z.ZodType<Numbering> = z.object({
  next: z.number(),
  same: z.string().nullable(),
  skipped: z.number().nullable(),
  before: numbered.nullable(),
  after: numbered.nullable(),
})

export const episode = episodeSummary.extend({
  showId: z.string(),
  guid: z.string(),
  text: keptEpisodeText,
  releaseZone: z.string().nullable(),
  /** When it leaves the feed; null where it stays. */
  retireAt: z.string().nullable(),
  retireZone: z.string().nullable(),
  /** Whether its page answers without it being in the feed. */
  keepsPage: z.boolean(),
  /** Of its own artwork, for the studio; null where it has the show's. */
  artworkAddress: z.string().nullable(),
  /** Whether what is out goes to listeners with an address of their own only. */
  isPrivate: z.boolean(),
  pageAddress: z.string().nullable(),
  enclosureAddress: z.string().nullable(),
  upload: upload.nullable(),
  numbering,
  /** Addresses in its notes that did not answer as they should. */
  badLinks: z.array(z.object({ address: z.string(), problem: z.string() })),
  /** When its text was last another, and who wrote that; null where nothing was written yet. */
  written: z.object({ by: writer, at: z.string() }).nullable(),
})
export type Episode = z.infer<typeof episode>

/** What a saved text makes of its episode; all else of it stays, or comes with the news. */
export const savedText = episode.pick({
  id: true,
  version: true,
  title: true,
  number: true,
  text: true,
  artworkAddress: true,
  changedSinceRelease: true,
  updatedAt: true,
})
export type SavedText = z.infer<typeof savedText>

/** A wall time in a zone; `second` picks the later one of a time that the clock shows twice. */
const wallMoment = z.object({
  local: z.string().max(40),
  zone: z.string().max(64, 'At most 64 characters.'),
  second: z.boolean().optional(),
})
export type WallMoment = z.infer<typeof wallMoment>

/**
 * When: now, or at a wall time in a zone. With
 * `isDatedBack` a time may be past: it goes out at once, and has that date.
 */
export const release = z.object({
  version,
  /** Of the sound that goes out; where it is not named, any may. */
  soundVersion: version.optional(),
  when: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('now') }),
    wallMoment.extend({ kind: z.literal('at'), isDatedBack: z.literal(true).optional() }),
  ]),
})
export type Release = z.infer<typeof release>

export const versioned = z.object({ version, soundVersion: version.optional() })

/** Another date of a released episode. */
export const redating = versioned.extend({ when: wallMoment })

export type Redating = z.infer<typeof redating>

/** An episode leaves the feed, at once where no time is named; its page stays where that is asked for. */
export const retirement = versioned.extend({ when: wallMoment.optional(), keepsPage: z.boolean().optional() })
export type Retirement = z.infer<typeof retirement>

/** What a show's episodes have used. */
export const vocabulary = z.object({
  tags: z.array(z.object({ tag: z.string(), count: z.number() })),
  people: keptSchemas.people,
  seasons: z.array(z.number()),
})
export type Vocabulary = z.infer<typeof vocabulary>
