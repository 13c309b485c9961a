import type { Passage, PassageKind } from '@core/search/passages'
import { type Excerpt, excerptOf } from '@core/search/excerpt'
import { hasPhrases, type Query, takesBeginnings } from '@core/search/query'
import { indexed, tokensOf } from '@core/search/tokens'
import type { Platform } from '../../platform/platform'
import type { Show } from '../../show/shows/models'
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

/** A word as the index has it, with the show's number before it; whether it may go on. */
interface IndexWord {
  text: string
  goesOn: boolean
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
/** A word that stands in more of the stretches than this is common: what tells episodes apart are the others. */
const commonShare = 0.2
/** So many episodes are looked at to know. */
const sampled = 6

/** How much more a hit counts where it stands in few words; in the database, so that none of them is lost among the many that are said. */
const weights: Readonly<Record<PassageKind, number>> = {
  title: 6,
  hook: 3,
  chapter: 3,
  person: 3,
  tag: 3,
  notes: 2,
  said: 1,
}

const weight = `CASE kind ${Object.entries(weights)
  .map(([kind, counts]) => `WHEN '${kind}' THEN ${counts}`)
  .join(' ')} END`
const written = Object.keys(weights).filter(kind => kind !== 'said')

/** Whether a passage has a word, by its place in `wordValues`. */
const stands = (at: number): string => `INSTR(CONCAT(' ', words, ' '), :word${at}) > 0`
const wordValues = (words: readonly IndexWord[]): Record<string, string> =>
  Object.fromEntries(words.map(({ text, goesOn }, at) => [`word${at}`, ` ${text}${goesOn ? '' : ' '}`]))

/** Finds words in what is written of a show's episodes that are out, and in what is said in them. */
export function searchService(platform: Pick<Platform, 'database' | 'configuration'>) {
  const index = wordIndex(platform)

  /** Which of the words are common in a show, as far as some of its episodes tell. */
  async function commonOf(showId: string, words: readonly IndexWord[]): Promise<ReadonlySet<IndexWord>> {
    const [row] = await index.select<Record<string, number | null>>(
      `SELECT ${words.map((_, at) => `AVG(${stands(at)}) AS share${at}`).join(', ')} FROM search_passages
        JOIN (SELECT episode_id FROM search_episodes WHERE show_id = :showId ORDER BY state LIMIT ${sampled}) AS sample USING (episode_id)`,
      { showId, ...wordValues(words) },
    )
    return new Set(words.filter((_, at) => Number(row![`share${at}`]) > commonShare))
  }

  /**
   * Passages of some episodes by their numbers alone, as what stands in them is much to sort; the best of them first. All of the
   * `needed` words stand in them, else at least one of `wanted`.
   */
  async function rankedWith(
    episodes: readonly string[],
    wanted: readonly IndexWord[],
    needed: readonly IndexWord[],
  ): Promise<Ranked[]> {
    if (episodes.length === 0) return []
    const isNeeded = new Set(needed)
    // Nothing of what was typed gets here but letters, digits and low lines; see core/search/tokens.
    const asked = wanted.map(word => `${isNeeded.has(word) ? '+' : ''}${word.text}${word.goesOn ? '*' : ''}`).join(' ')
    const beside = needed.filter(word => !wanted.includes(word))
    return index.select<Ranked>(
      `SELECT id, episode_id AS episodeId, kind, MATCH (words) AGAINST (:asked IN BOOLEAN MODE) * ${weight} AS score FROM search_passages
        WHERE MATCH (words) AGAINST (:asked IN BOOLEAN MODE) AND episode_id IN (:episodes) ${beside.map((_, at) => `AND ${stands(at)}`).join(' ')}
        ORDER BY score DESC, id DESC LIMIT ${mostPassages}`,
      { asked, episodes, ...wordValues(beside) },
    )
  }

  /** Passages of common words: written in any of the episodes, or said in the first of them; of each kind the first in its episode. */
  async function rankedAmong(episodes: readonly string[], words: readonly IndexWord[]): Promise<Ranked[]> {
    if (episodes.length === 0) return []
    const among = (kinds: string): string =>
      `SELECT MIN(id) AS id, episode_id AS episodeId, kind, ${weight} AS score FROM search_passages
        WHERE ${kinds} ${words.map((_, at) => `AND ${stands(at)}`).join(' ')} GROUP BY episode_id, kind`
    return index.select<Ranked>(
      `${among('episode_id IN (:all) AND kind IN (:written)')} UNION ALL ${among("episode_id IN (:first) AND kind = 'said'")}`,
      { all: episodes, first: episodes.slice(0, mostEpisodes), written, ...wordValues(words) },
    )
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
    /**
     * Those of the given episodes of a show that have what was asked for, the best first, and of such as are alike the ones that
     * are given first. Nothing is found by no word.
     */
    async find(show: Pick<Show, 'id' | 'feedRevision'>, episodes: readonly string[], query: Query): Promise<Found> {
      if (query.words.length === 0) return { episodes: [], hasAllWords: true, isCut: false }
      const prefix = await index.prefixOf(show)
      const words = query.words.map(word => ({ text: prefix + indexed(word), goesOn: takesBeginnings(word) }))
      // Of a few episodes everything is soon looked at.
      const common = episodes.length > mostEpisodes ? await commonOf(show.id, words) : new Set()
      const rare = words.filter(word => !common.has(word))
      const place = new Map(episodes.map((id, at) => [id, at]))
      const best = async (found: Promise<Ranked[]>): Promise<readonly Ranked[]> => {
        const ranked = (await found).toSorted(
          (one, other) =>
            other.score - one.score ||
            place.get(one.episodeId)! - place.get(other.episodeId)! ||
            Number(one.id) - Number(other.id),
        )
        return withPhrases(ranked, query)
      }
      const wanted = rare.length > 0 ? rare : words
      const near = rare.length === 0 && query.phrases.length === 0 ? await best(rankedAmong(episodes, words)) : []
      const all = near.length > 0 ? near : await best(rankedWith(episodes, wanted, words))
      const inPhrases = new Set(query.phrases.flat())
      const needed = words.filter((_, at) => inPhrases.has(query.words[at]!))
      const takesLess = all.length === 0 && words.length > 1 && needed.length < words.length
      const some = takesLess ? await best(rankedWith(episodes, wanted, needed)) : []
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
