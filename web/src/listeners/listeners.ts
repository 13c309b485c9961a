import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { ListenerList, NewListeners } from '@contract/listeners'
import { api } from '../api'
import { problemOf, type Told } from '../parts/problems'
import { useShows } from '../show/shows'

/** The listeners of the open show who have an address of their own. */
export const useListeners = defineStore('listeners', () => {
  const shows = useShows()
  const list = shallowRef<ListenerList | null>(null)
  const problem = ref<Told | null>(null)
  const busy = ref(false)

  async function act(ask: () => Promise<ListenerList>): Promise<boolean> {
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
