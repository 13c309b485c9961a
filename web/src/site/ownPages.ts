import { defineStore } from 'pinia'
import type { OwnPageChange, OwnPageList } from '@contract/ownPages'
import { api } from '../api'
import { useKeptList } from '../parts/keptList'

/** Pages of the maker's own on the site of the open show. */
export const useOwnPages = defineStore('ownPages', () => {
  const { list, problem, busy, act } = useKeptList<OwnPageList>()
  return {
    list,
    problem,
    busy,
    load: (showId: string) => act(() => api.ownPages(showId)),
    create: (showId: string, title: string) => act(() => api.createOwnPage(showId, { title })),
    change: (id: string, page: OwnPageChange) => act(() => api.changeOwnPage(id, page)),
    remove: (id: string) => act(() => api.removeOwnPage(id)),
  }
})
