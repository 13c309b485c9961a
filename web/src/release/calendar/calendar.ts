import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Calendar, CalendarEpisode } from '@contract/calendar'
import type { EpisodeSummary } from '@contract/episodes'
import { wallTime } from '@core/release/moment'
import { api } from '../../platform/api'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { t } from './messages'

/** What was moved last, and to where from. */
interface Moved {
  episode: EpisodeSummary
  showId: string
  /** Wall times by the show's clock; it had none where it was a draft. */
  to: string
  from: string | null
}

const mostDrafts = 50

/** What goes out when, of several shows, over the days that are looked at. */
export const useCalendar = defineStore('calendar', () => {
  const shown = shallowRef<Calendar | null>(null)
  const drafts = shallowRef<readonly EpisodeSummary[]>([])
  const moved = shallowRef<Moved | null>(null)
  const problem = ref<ShownProblem | null>(null)
  let asked: { from: string; to: string; shows: readonly string[] } | null = null
  let turns = 0

  /** Shows these days of these shows. */
  async function load(query: { from: string; to: string; shows: readonly string[] }): Promise<void> {
    asked = query
    await refresh().catch((error: unknown) => {
      problem.value = problemOf(error, t('calendarIsOld'))
    })
  }

  async function refresh(): Promise<void> {
    if (!asked) return
    const turn = ++turns
    const fresh = await api.calendar(asked)
    // Of answers that overtake each other the one asked for last is the newest.
    if (turn === turns) shown.value = fresh
  }

  const zoneOf = (showId: string): string => shown.value!.shows.find(({ id }) => id === showId)!.zone

  /** The drafts of a show that could go out. */
  async function loadDrafts(showId: string): Promise<void> {
    const page = await api.episodes(showId, { status: 'draft', limit: mostDrafts })
    drafts.value = page.episodes.filter(({ hasAudio, title }) => hasAudio && title.trim() !== '')
  }

  async function attempt(act: () => Promise<void>): Promise<void> {
    problem.value = null
    await act().catch((error: unknown) => {
      problem.value = problemOf(error, t('staysWhereItWas'))
    })
    await refresh().catch(() => undefined)
  }

  const put = async (episode: EpisodeSummary, showId: string, local: string): Promise<EpisodeSummary> =>
    api.release(episode.id, { version: episode.version, when: { kind: 'at', local, zone: zoneOf(showId) } })

  /** Has an episode go out at a wall time of its show. */
  async function move(episode: EpisodeSummary, showId: string, local: string): Promise<void> {
    const from = episode.releaseAt && wallTime(new Date(episode.releaseAt), zoneOf(showId))
    if (from === local) return
    await attempt(async () => {
      moved.value = { episode: await put(episode, showId, local), showId, to: local, from }
    })
  }

  /** Back to where it was before. */
  async function putBack(): Promise<void> {
    const { episode, showId, from } = moved.value!
    moved.value = null
    await attempt(async () => {
      await (from === null
        ? api.step(episode.id, 'unschedule', { version: episode.version })
        : put(episode, showId, from))
    })
  }

  return { shown, drafts, moved, problem, load, refresh, loadDrafts, move, putBack }
})

export type { CalendarEpisode }
