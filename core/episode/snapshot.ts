import type { TranscriptFormat } from '../transcript/formats'
import { type Chapter, episodeFields, type EpisodeText, fields, type Soundbite, unsetText } from './fields'

/** A text as it went out, with the schema that it was written by. */
export interface Snapshot {
  schema: number
  text: Partial<EpisodeText>
  /** By the clock of the file that went out with it; those of before they were kept do not have any. */
  chapters?: Chapter[]
  soundbites?: Soundbite[]
  transcripts?: ReleasedTranscript[]
}

/** What the feed tells of a transcript. */
export interface ReleasedTranscript {
  language: string
  isSpoken: boolean
  formats: TranscriptFormat[]
}

/** Grows with each field that comes, which names it as its `since`, so that older snapshots are known not to have it. */
export const currentSchema = Math.max(...Object.values(fields).map(({ since }) => since))

export const snapshotOf = (
  text: EpisodeText,
  beside: Required<Pick<Snapshot, 'chapters' | 'soundbites' | 'transcripts'>>,
): Snapshot => ({ schema: currentSchema, text, ...beside })

/** The text of a snapshot; fields that came after it are as an episode has them that never wrote any. */
export function readSnapshot(
  { schema, text }: Snapshot,
  known: Readonly<Record<string, { since: number }>> = fields,
): EpisodeText {
  const read: Record<string, unknown> = { ...unsetText }
  for (const name of episodeFields)
    if (known[name]!.since <= schema && text[name] !== undefined) read[name] = text[name]
  return read as EpisodeText
}
