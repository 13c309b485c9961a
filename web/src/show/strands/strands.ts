import { defineStore } from 'pinia'
import type { NewStrand, StrandChange, StrandList } from '@contract/strands'
import { api } from '../../platform/api'
import { useKeptList } from '../../platform/parts/keptList'

/** The strands of the open show. */
export const useStrands = defineStore('strands', () => {
  const { list, problem, busy, act } = useKeptList<StrandList>()
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
