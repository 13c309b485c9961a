import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { SharedEpisode } from '@contract/sharing'
import { api } from '../../platform/api'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { t } from './messages'

/** Episodes of the open show of which word can be passed on. */
export const useSharing = defineStore('sharing', () => {
  const episodes = shallowRef<readonly SharedEpisode[] | null>(null)
  const problem = ref<ShownProblem | null>(null)

  async function load(showId: string, first?: string): Promise<void> {
    try {
      episodes.value = (await api.sharing(showId, { first })).episodes
      problem.value = null
    } catch (error) {
      problem.value = problemOf(error, t('seenFromBefore'))
    }
  }
  return { episodes, problem, load }
})
