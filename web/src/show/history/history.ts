import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { PastState, PastText } from '@contract/history'
import { api } from '../../platform/api'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { t } from './messages'

/** The states that an episode had, and the one that is looked at. */
export const useHistory = defineStore('history', () => {
  const states = shallowRef<readonly PastState[] | null>(null)
  const chosen = shallowRef<PastText | null>(null)
  const problem = ref<ShownProblem | null>(null)
  let turn = 0

  async function attempt(act: () => Promise<void>): Promise<void> {
    problem.value = null
    await act().catch((error: unknown) => {
      problem.value = problemOf(error, t('historyUnreached'))
    })
  }

  /** Loads the states, and the one before the newest, which is what most people come for. */
  const open = (episodeId: string): Promise<void> =>
    attempt(async () => {
      states.value = chosen.value = null
      states.value = (await api.history(episodeId)).states
      const first = states.value[1] ?? states.value[0]
      if (first) await choose(episodeId, first.id)
    })

  const choose = (episodeId: string, stateId: string): Promise<void> =>
    attempt(async () => {
      const mine = ++turn
      const state = await api.pastText(episodeId, stateId)
      if (mine === turn) chosen.value = state
    })

  return { states, chosen, problem, open, choose }
})
