import { defineStore } from 'pinia'
import type { CustomDomain } from '@contract/customDomains'
import { api } from '../../platform/api'
import { useKeptList } from '../../platform/parts/keptList'

/** The host name of the open show. */
export const useCustomDomain = defineStore('custom-domain', () => {
  const { list: domain, problem, busy, act } = useKeptList<CustomDomain>()
  return {
    domain,
    problem,
    busy,
    load: (showId: string) => act(() => api.customDomain(showId)),
    claim: (showId: string, name: string) => act(() => api.claimCustomDomain(showId, { host: name })),
    prove: (showId: string) => act(() => api.proveCustomDomain(showId)),
    leave: (showId: string) => act(() => api.leaveCustomDomain(showId)),
  }
})
