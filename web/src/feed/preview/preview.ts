import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Preview } from '@contract/preview'
import { api } from '../../platform/api'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { t } from './messages'

/** The episode on the desk as it would go out now. */
export const usePreview = defineStore('preview', () => {
  const seen = shallowRef<Preview | null>(null)
  const problem = ref<ShownProblem | null>(null)
  /** Where its public page is seen; another address for each state, so that the frame loads it again. */
  const pageAddress = ref<string | null>(null)
  let turn = 0

  async function look(episodeId: string): Promise<void> {
    const mine = ++turn
    try {
      const fresh = await api.preview(episodeId)
      if (mine !== turn) return
      seen.value = fresh
      problem.value = null
      pageAddress.value = `/api/v1/episodes/${episodeId}/preview/page?${fresh.version}-${fresh.soundVersion}`
    } catch (error) {
      if (mine === turn) problem.value = problemOf(error, t('seenFromBefore'))
    }
  }

  return { seen, problem, pageAddress, look }
})
