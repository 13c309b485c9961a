import type { Passage, PassageKind } from '@core/search/passages'
import { type Excerpt, excerptOf } from '@core/search/excerpt'
import { hasPhrases, type Query, takesBeginnings } from '@core/search/query'
import { indexed, tokensOf } from '@core/search/tokens'
import type { Platform } from '../platform'
import type { Show } from '../shows/models'
import { wordIndex } from './wordIndex'

/** Where something was found in an episode, the best place first. */
export interface FoundEpisode {
  id: string
  places: (Excerpt & { kind: PassageKind; speaker: string | null })[]
}
export interface Found {
  episodes: FoundEpisode[]
  /** Whether each place has all words; else some. */
  hasAllWords: boolean
  /** Whether there are more episodes than these. */
  isCut: boolean
}

/** So many passages are looked at, of which the best are shown: so many episodes, with so many places each. */
const mostPassages = 300
const mostEpisodes = 30
const mostPlaces = 3

/** How much more a hit counts where it stands in few words. */
const weights: Readonly<Record<PassageKind, number>> = {
  title: 6,
  hook: 3,
  chapter: 3,
  person: 3,
  tag: 3,
  notes: 2,
  said: 1,
}

/** Finds words in what is written of a show's episodes that are out, and in what is said in them. */
export function searchService(platform: Pick<Platform, 'database' | 'configuration'>) {
  const index = wordIndex(platform)

  async function passagesWith(
    prefix: string,
    query: Query,
    sign: '+' | '',
  ): Promise<{ id: string; passage: Passage; score: number }[]> {
    // Nothing of what was typed gets here but letters, digits and low lines; see core/search/tokens.
    const asked = query.words
      .map(word => `${sign}${prefix}${indexed(word)}${takesBeginnings(word) ? '*' : ''}`)
      .join(' ')
    const rows = await index.select<{ id: string; passage: Passage | string; score: number }>(
      `SELECT episode_id AS id, passage, MATCH (words) AGAINST (:asked IN BOOLEAN MODE) AS score FROM search_passages
        WHERE MATCH (words) AGAINST (:asked IN BOOLEAN MODE) ORDER BY score DESC, id LIMIT ${mostPassages}`,
      { asked },
    )
    return rows
      .map(({ passage, ...row }) => ({
        ...row,
        passage: typeof passage === 'string' ? (JSON.parse(passage) as Passage) : passage,
      }))
      .filter(({ passage }) => query.phrases.length === 0 || hasPhrases(tokensOf(passage.text), query))
  }

  return {
    upToDate: index.upToDate,

    /** The episodes that have what was asked for, the best first. Nothing is found by no word. */
    async find(show: Pick<Show, 'id' | 'feedRevision'>, query: Query): Promise<Found> {
      if (query.words.length === 0) return { episodes: [], hasAllWords: true, isCut: false }
      const prefix = await index.prefixOf(show)
      const all = await passagesWith(prefix, query, '+')
      const some = all.length > 0 || query.words.length === 1 ? [] : await passagesWith(prefix, query, '')
      const ranked = [...all, ...some].map(row => ({ ...row, score: row.score * weights[row.passage.kind] }))
      ranked.sort((a, b) => b.score - a.score)
      const byEpisode = new Map<string, Passage[]>()
      for (const { id, passage } of ranked) byEpisode.set(id, [...(byEpisode.get(id) ?? []), passage])
      return {
        hasAllWords: some.length === 0,
        isCut: byEpisode.size > mostEpisodes,
        episodes: [...byEpisode].slice(0, mostEpisodes).map(([id, passages]) => ({
          id,
          places: passages
            .slice(0, mostPlaces)
            .map(passage => ({ ...excerptOf(passage, query), kind: passage.kind, speaker: passage.speaker })),
        })),
      }
    },
  }
}
