import { defineStore } from 'pinia'
import type { ShowHost } from '@contract/hosts'
import { api } from '../api'
import { useKeptList } from '../parts/keptList'

/** The host name of the open show. */
export const useHost = defineStore('host', () => {
  const { list: host, problem, busy, act } = useKeptList<ShowHost>()
  return {
    host,
    problem,
    busy,
    load: (showId: string) => act(() => api.host(showId)),
    claim: (showId: string, name: string) => act(() => api.claimHost(showId, { host: name })),
    prove: (showId: string) => act(() => api.proveHost(showId)),
    leave: (showId: string) => act(() => api.leaveHost(showId)),
  }
})
