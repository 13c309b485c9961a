import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { NewStrand, StrandChange, StrandList } from '@contract/strands'
import { api } from '../api'
import { problemOf, type Told } from '../parts/problems'

/** The strands of the open show. */
export const useStrands = defineStore('strands', () => {
  const list = shallowRef<StrandList | null>(null)
  const problem = ref<Told | null>(null)
  const busy = ref(false)

  async function act(ask: () => Promise<StrandList>): Promise<boolean> {
    busy.value = true
    problem.value = null
    try {
      list.value = await ask()
      return true
    } catch (error) {
      problem.value = problemOf(error, 'Nothing was changed.')
      return false
    } finally {
      busy.value = false
    }
  }
  return {
    list,
    problem,
    busy,
    load: (showId: string) => act(() => api.strands(showId)),
    create: (showId: string, strand: NewStrand) => act(() => api.createStrand(showId, strand)),
    change: (id: string, strand: StrandChange) => act(() => api.changeStrand(id, strand)),
    choose: (id: string, episodeIds: string[]) => act(() => api.chooseStrand(id, episodeIds)),
    remove: (id: string) => act(() => api.removeStrand(id)),
  }
})
