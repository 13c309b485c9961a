import { z } from 'zod'
import { keptSchemas } from '@core/episode/fields'
import { hindrances } from '@core/release/readiness'

/** A tag of the file as it will be written. */
const fileTag = z.object({
  /** ID3v2 frame. */
  frame: z.string(),
  name: z.string(),
  value: z.string(),
  /** Filled in from the show, or by the house. */
  isInherited: z.boolean(),
})

/** An episode as it would go out now. */
export const preview = z.object({
  /** Of what it was made. */
  version: z.number(),
  soundVersion: z.number(),
  show: z.object({ name: z.string(), author: z.string() }),
  title: z.string(),
  hook: z.string(),
  /** The notes as plain text. */
  description: z.string(),
  /** The notes as clean HTML, their fields filled in. */
  notesHtml: z.string(),
  author: z.string(),
  number: z.number().nullable(),
  season: z.number().nullable(),
  kind: keptSchemas.kind,
  explicit: z.boolean(),
  /** Its moment; null where it has none yet. */
  at: z.string().nullable(),
  durationMs: z.number().nullable(),
  artworkAddress: z.string(),
  /** What comes from the show. */
  inherited: z.array(z.enum(['title pattern', 'artwork', 'author', 'explicit', 'link'])),
  /** What keeps it from going out; its moment is not one of them. */
  hindrances: z.array(z.enum(hindrances)),
  /** The feed's item, line by line. */
  item: z.array(z.object({ line: z.string(), isInherited: z.boolean() })),
  tags: z.array(fileTag),
})
export type Preview = z.infer<typeof preview>
