/** What a person writes about an episode, and nothing a machine finds out. */
export interface EpisodeText {
  title: string
  number: number | null
  season: number | null
  kind: 'full' | 'trailer' | 'bonus'
  /** HTML as `core/notes` cleans it. */
  notes: string
}

export type EpisodeField = keyof EpisodeText
export const episodeFields: readonly EpisodeField[] = ['title', 'number', 'season', 'kind', 'notes']

/** The fields in which two texts differ. */
export function differingFields(one: EpisodeText, other: EpisodeText): EpisodeField[] {
  return episodeFields.filter(field => one[field] !== other[field])
}
