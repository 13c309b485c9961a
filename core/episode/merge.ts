import { conflict, type Field } from './field'
import { type EpisodeField, episodeFields, type EpisodeText, fields, isSameField } from './fields'

export interface Merge {
  /** Their text with my changes where they can stand beside theirs. */
  text: EpisodeText
  /** What of it differs from theirs, as a request to save it names it. */
  mine: Partial<EpisodeText>
  /** Fields that both changed, to different things: a person must choose. `text` holds theirs. */
  conflicts: EpisodeField[]
}

/** Brings together two texts of an episode that grew from the same one in two windows. */
export function mergeTexts(base: EpisodeText, mine: EpisodeText, theirs: EpisodeText): Merge {
  const merged = episodeFields.map(
    name => [name, (fields[name] as Field).merge(base[name], mine[name], theirs[name])] as const,
  )
  const settled = Object.fromEntries(merged.filter(([, value]) => value !== conflict)) as Partial<EpisodeText>
  const text = { ...theirs, ...settled }
  const changed = episodeFields.filter(name => !isSameField(name, text, theirs))
  return {
    text,
    mine: Object.fromEntries(changed.map(name => [name, text[name]])) as Partial<EpisodeText>,
    conflicts: merged.filter(([, value]) => value === conflict).map(([name]) => name),
  }
}
