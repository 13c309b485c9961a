import { type EpisodeField, type EpisodeText, episodeFields } from './text'

export interface Merge {
  /** Their text with my changes where only I changed a field. */
  text: EpisodeText
  /** My changes against their text, as a request to save them names them. */
  mine: Partial<EpisodeText>
  /** Fields that both changed, to different things: a person must choose. `text` holds theirs. */
  conflicts: EpisodeField[]
}

/** Brings together two texts of an episode that grew from the same one in two windows. */
export function mergeTexts(base: EpisodeText, mine: EpisodeText, theirs: EpisodeText): Merge {
  const conflicts = episodeFields.filter(
    field => mine[field] !== base[field] && theirs[field] !== base[field] && mine[field] !== theirs[field],
  )
  const changes = Object.fromEntries(
    episodeFields
      .filter(field => mine[field] !== base[field] && mine[field] !== theirs[field] && !conflicts.includes(field))
      .map(field => [field, mine[field]]),
  ) as Partial<EpisodeText>
  return { text: { ...theirs, ...changes }, mine: changes, conflicts }
}
