import { defineStore } from 'pinia'
import type { ListenerList, NewListeners } from '@contract/listeners'
import { api } from '../../platform/api'
import { useKeptList } from '../../platform/parts/keptList'
import { useShows } from '../../show/shows/shows'

/** The listeners of the open show who have an address of their own. */
export const useListeners = defineStore('listeners', () => {
  const shows = useShows()
  const { list, problem, busy, act } = useKeptList<ListenerList>()
  return {
    list,
    problem,
    busy,
    load: (showId: string) => act(() => api.listeners(showId)),
    add: (showId: string, wanted: NewListeners) => act(() => api.addListeners(showId, wanted)),
    renew: (id: string) => act(() => api.renewListener(id)),
    withdraw: (id: string) => act(() => api.withdrawListener(id)),
    restore: (id: string) => act(() => api.restoreListener(id)),
    /** Lets a show go out to everybody, or to its own listeners only. */
    setPrivate: (show: { id: string; version: number }, isPrivate: boolean) =>
      act(async () => {
        await shows.change(show.id, { version: show.version, feedFacts: { isPrivate } })
        return api.listeners(show.id)
      }),
  }
})
