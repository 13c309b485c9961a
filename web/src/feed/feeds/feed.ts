import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { FeedCheck, FeedChecked, FeedOverview, FeedComparisonView } from '@contract/feed'
import type { ShowChange } from '@contract/shows'
import type { EpisodeText } from '@core/episode/fields'
import { api } from '../../platform/api'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { t } from './messages'

/** The feed of the open show: whether it is right, what became of it, who has it. */
export const useFeed = defineStore('feed', () => {
  const overview = shallowRef<FeedOverview | null>(null)
  const problem = ref<ShownProblem | null>(null)
  let turns = 0

  async function refresh(showId: string): Promise<void> {
    const turn = ++turns
    const loaded = await api.feed(showId)
    // Of answers that overtake each other the one asked for last is the newest.
    if (turn !== turns) return
    overview.value = loaded
    problem.value = null
  }
  const load = (showId: string): Promise<void> =>
    refresh(showId).catch((error: unknown) => {
      problem.value = problemOf(error, t('feedStillServed'))
    })
  function leave(): void {
    turns++
    overview.value = null
    problem.value = null
  }

  const stateOf = (showId: string, id: string): Promise<FeedComparisonView> => api.feedState(showId, id)
  const outlook = (showId: string, change: ShowChange): Promise<FeedComparisonView> => api.feedOutlook(showId, change)
  const changeOf = (episodeId: string): Promise<FeedComparisonView> => api.feedChange(episodeId)
  const check = (wanted: FeedCheck): Promise<FeedChecked> => api.checkFeed(wanted)

  /** Changes an episode so that a rule is kept; it waits to be sent, where the episode is out. */
  const fix = (episodeId: string, version: number, text: Partial<EpisodeText>): Promise<unknown> =>
    api.changeEpisode(episodeId, { version, text })

  return { overview, problem, load, refresh, leave, stateOf, outlook, changeOf, check, fix }
})
