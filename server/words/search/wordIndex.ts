import { createHash } from 'node:crypto'
import { QueryTypes, type Transaction } from 'sequelize'
import { renderText } from '@core/episode/rendered'
import rendered from '@core/episode/rendered?edition'
import { readSnapshot } from '@core/episode/snapshot'
import { type Passage, passagesOf } from '@core/search/passages'
import passages from '@core/search/passages?edition'
import { indexedWords, tokensOf } from '@core/search/tokens'
import tokens from '@core/search/tokens?edition'
import type { Cue } from '@core/transcript/cue'
import { transact } from '../../platform/database/transact'
import { type ReleasedEpisode, releasedEpisodes, releasedVersions } from '../../show/episodes/released'
import { digestOf } from '../../platform/storage/written'
import type { Platform } from '../../platform/platform'
import { singleFlight } from '../../platform/singleFlight'
import { Show } from '../../show/shows/models'
import { renderContextOf } from '../../show/shows/service'
import { releasedWords } from '../transcripts/release'

/** Where passages or words become other ones, all are made anew. */
export const edition = createHash('sha256').update(`${passages} ${tokens} ${rendered}`).digest('hex').slice(0, 16)

const episodesAtOnce = 20
/** So many passages are a statement of a megabyte or less. */
const mostRows = 1_000

/** Whoever asks for the words of a show while they are made, a job or one of many visitors, waits for the same. */
const renewing = singleFlight<void>()

/** The words of a show's released episodes, as its visitors find them. */
export function wordIndex({ database, configuration: { publicUrl } }: Pick<Platform, 'database' | 'configuration'>) {
  const select = <Row extends object>(sql: string, replacements: object, transaction?: Transaction): Promise<Row[]> =>
    database.query<Row>(sql, {
      replacements: replacements as Record<string, unknown>,
      type: QueryTypes.SELECT,
      transaction,
    })
  const change = (sql: string, replacements: object, transaction?: Transaction) =>
    database.query(sql, { replacements: replacements as Record<string, unknown>, transaction })

  /** Its number before its words, and of which revision they are; of another edition they are of none. */
  async function rowOf(showId: string): Promise<{ number: number; revision: number }> {
    const known = await select<{ number: number; revision: number }>(
      'SELECT number, IF(edition = :edition, revision, -1) AS revision FROM search_shows WHERE show_id = :showId',
      { showId, edition },
    )
    if (known[0]) return known[0]
    await change('INSERT IGNORE INTO search_shows (show_id) VALUES (:showId)', { showId })
    return rowOf(showId)
  }

  function passagesIn(show: Show, episode: ReleasedEpisode, said: readonly Cue[]): Passage[] {
    const text = readSnapshot(episode.released)
    const chapters = episode.released.chapters ?? []
    const { title, notesHtml } = renderText(text, renderContextOf(show, publicUrl), chapters)
    return passagesOf({ ...text, notes: notesHtml }, title, chapters, said)
  }

  /** Has the words of some episodes there, each in one form; what other processes do to the same show waits meanwhile. */
  async function write(show: Show, number: number, ids: readonly string[], states: ReadonlyMap<string, string>) {
    // Together they are some tens of milliseconds of the database; one by one they are that each.
    const episodes = await releasedEpisodes(show.id, 'whoever', { ids })
    const said = await releasedWords(ids)
    const rows = episodes.flatMap(episode =>
      passagesIn(show, episode, said.get(episode.id) ?? []).map(passage => [
        episode.id,
        passage.kind,
        JSON.stringify(passage),
        // A word that is there twice is found no better.
        [
          ...new Set(
            tokensOf(passage.text)
              .flatMap(indexedWords)
              .map(word => `${number}_${word}`),
          ),
        ].join(' '),
      ]),
    )
    if (episodes.length === 0) return
    await transact(database, async transaction => {
      await select('SELECT 1 FROM search_shows WHERE number = :number FOR UPDATE', { number }, transaction)
      await change('DELETE FROM search_episodes WHERE episode_id IN (:ids)', { ids }, transaction)
      await change(
        'INSERT INTO search_episodes (episode_id, show_id, state) VALUES :episodes',
        { episodes: episodes.map(({ id }) => [id, show.id, states.get(id)]) },
        transaction,
      )
      for (let at = 0; at < rows.length; at += mostRows)
        await change(
          'INSERT INTO search_passages (episode_id, kind, passage, words) VALUES :rows',
          { rows: rows.slice(at, at + mostRows) },
          transaction,
        )
    })
  }

  async function renew(showId: string): Promise<void> {
    const show = await Show.findByPk(showId)
    if (!show) return
    const { number, revision } = await rowOf(showId)
    const now = Number(show.feedRevision)
    if (Number(revision) >= now) return
    const versions = await releasedVersions(showId, 'whoever')
    const by = JSON.stringify([edition, show.titlePattern, show.name, show.slug, show.hostName])
    const states = new Map(versions.map(({ id, is }) => [id, digestOf(Buffer.from(`${is} ${by}`))]))
    const known = new Map(
      (
        await select<{ id: string; state: string }>(
          'SELECT episode_id AS id, state FROM search_episodes WHERE show_id = :showId',
          { showId },
        )
      ).map(({ id, state }) => [id, state]),
    )
    const gone = [...known.keys()].filter(id => !states.has(id))
    if (gone.length > 0) await change('DELETE FROM search_episodes WHERE episode_id IN (:gone)', { gone })
    const wanted = versions.map(({ id }) => id).filter(id => known.get(id) !== states.get(id))
    // Read in parts, so that a long show need not be in memory as a whole.
    for (let at = 0; at < wanted.length; at += episodesAtOnce)
      await write(show, number, wanted.slice(at, at + episodesAtOnce), states)
    await change(
      'UPDATE search_shows SET revision = IF(edition = :edition, GREATEST(revision, :now), :now), edition = :edition WHERE number = :number',
      {
        now,
        number,
        edition,
      },
    )
  }

  /** Brings the words of a show up to date where they are not; whoever asks for the same revision meanwhile waits for the same. */
  const upToDate = ({ id, feedRevision }: Pick<Show, 'id' | 'feedRevision'>): Promise<void> =>
    renewing.get(`${id} ${feedRevision}`, () => renew(id))

  return {
    upToDate,
    /** What stands before the words of a show in the index; its words are there as of its newest revision. */
    async prefixOf(show: Pick<Show, 'id' | 'feedRevision'>): Promise<string> {
      const { number, revision } = await rowOf(show.id)
      if (Number(revision) < Number(show.feedRevision)) await upToDate(show)
      return `${number}_`
    },
    select,
  }
}
