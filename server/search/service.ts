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

interface Ranked {
  id: number
  episodeId: string
  kind: PassageKind
  score: number
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

  /** Passages by their numbers alone, as what stands in them is much to sort; the best of them first. */
  async function rankedWith(prefix: string, query: Query, sign: '+' | ''): Promise<Ranked[]> {
    // Nothing of what was typed gets here but letters, digits and low lines; see core/search/tokens.
    const asked = query.words
      .map(word => `${sign}${prefix}${indexed(word)}${takesBeginnings(word) ? '*' : ''}`)
      .join(' ')
    const rows = await index.select<Ranked>(
      `SELECT id, episode_id AS episodeId, kind, MATCH (words) AGAINST (:asked IN BOOLEAN MODE) AS score FROM search_passages
        WHERE MATCH (words) AGAINST (:asked IN BOOLEAN MODE) ORDER BY score DESC, id LIMIT ${mostPassages}`,
      { asked },
    )
    return rows
      .map(row => ({ ...row, score: row.score * weights[row.kind] }))
      .toSorted((one, other) => other.score - one.score)
  }

  async function passagesOf(ids: readonly number[]): Promise<Map<number, Passage>> {
    if (ids.length === 0) return new Map()
    const rows = await index.select<{ id: number; passage: Passage | string }>(
      'SELECT id, passage FROM search_passages WHERE id IN (:ids)',
      { ids },
    )
    return new Map(
      rows.map(({ id, passage }) => [
        Number(id),
        typeof passage === 'string' ? (JSON.parse(passage) as Passage) : passage,
      ]),
    )
  }

  async function withPhrases(ranked: readonly Ranked[], query: Query): Promise<readonly Ranked[]> {
    if (query.phrases.length === 0) return ranked
    const passages = await passagesOf(ranked.map(({ id }) => id))
    return ranked.filter(({ id }) => hasPhrases(tokensOf(passages.get(Number(id))?.text ?? ''), query))
  }

  return {
    upToDate: index.upToDate,

    /** The episodes that have what was asked for, the best first. Nothing is found by no word. */
    async find(show: Pick<Show, 'id' | 'feedRevision'>, query: Query): Promise<Found> {
      if (query.words.length === 0) return { episodes: [], hasAllWords: true, isCut: false }
      const prefix = await index.prefixOf(show)
      const all = await withPhrases(await rankedWith(prefix, query, '+'), query)
      const some =
        all.length > 0 || query.words.length === 1 ? [] : await withPhrases(await rankedWith(prefix, query, ''), query)
      const byEpisode = new Map<string, Ranked[]>()
      for (const row of [...all, ...some]) {
        const places = byEpisode.get(row.episodeId) ?? []
        if (places.length < mostPlaces) byEpisode.set(row.episodeId, [...places, row])
      }
      const shown = [...byEpisode].slice(0, mostEpisodes)
      const passages = await passagesOf(shown.flatMap(([, places]) => places.map(({ id }) => id)))
      return {
        hasAllWords: some.length === 0,
        isCut: byEpisode.size > mostEpisodes,
        episodes: shown.map(([id, places]) => ({
          id,
          places: places.flatMap(place => {
            const passage = passages.get(Number(place.id))
            // What was taken out meanwhile is not told any more.
            return passage ? [{ ...excerptOf(passage, query), kind: passage.kind, speaker: passage.speaker }] : []
          }),
        })),
      }
    },
  }
}
