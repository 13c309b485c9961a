import { tagKey } from '../tags/tags'

/** Which of a show's episodes are listed, and which page of them. */
export interface EpisodeFilter {
  season: number | null
  year: number | null
  /** The address part of a strand. */
  strand: string | null
  tag: string | null
  /** From 1. */
  page: number
}
export const everyEpisode: EpisodeFilter = { season: null, year: null, strand: null, tag: null, page: 1 }

/** What a filter looks at in an episode. */
export interface Filtered {
  season: number | null
  /** Of its release, in the show's zone. */
  year: number
  /** As tags are compared. */
  tagKeys: readonly string[]
  /** Address parts of the strands that it is in. */
  strands: readonly string[]
}

const wholeNumber = (words: string | null, most: number): number | null =>
  words && /^[1-9]\d{0,3}$/.test(words) && Number(words) <= most ? Number(words) : null

/** Reads a filter from what stands behind the `?` of an address; what it does not know, or cannot be, counts as not said. */
export function readFilter(query: string): EpisodeFilter {
  const said = new URLSearchParams(query)
  return {
    season: wholeNumber(said.get('season'), 9999),
    year: wholeNumber(said.get('year'), 9999),
    strand: said.get('strand')?.slice(0, 60) || null,
    tag: said.get('tag')?.trim().slice(0, 100) || null,
    page: wholeNumber(said.get('page'), 9999) ?? 1,
  }
}

/** The same as it stands behind an address: always in this order, and only what narrows; empty, or with its `?`. */
export function filterQuery(filter: EpisodeFilter): string {
  const said = new URLSearchParams()
  for (const name of ['season', 'year', 'strand', 'tag'] as const)
    if (filter[name] !== null) said.set(name, String(filter[name]))
  if (filter.page > 1) said.set('page', String(filter.page))
  const query = said.toString()
  return query && `?${query}`
}

export function passes({ season, year, strand, tag }: EpisodeFilter, episode: Filtered): boolean {
  return (
    (season === null || episode.season === season) &&
    (year === null || episode.year === year) &&
    (strand === null || episode.strands.includes(strand)) &&
    (tag === null || episode.tagKeys.includes(tagKey(tag)))
  )
}
