import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { DirectoryList, NewOwnListing } from '@contract/directories'
import { api } from '../../platform/api'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { t } from './messages'

/** The directories that a show is handed to, and how it stands in each. */
export const useDirectories = defineStore('directories', () => {
  const list = shallowRef<DirectoryList | null>(null)
  const problem = ref<(ShownProblem & { at: string | null }) | null>(null)
  const busy = ref<string | null>(null)

  let turns = 0

  async function refresh(showId: string): Promise<void> {
    const turn = ++turns
    const loaded = await api.directories(showId)
    // Of answers that overtake each other the one asked for last is the newest.
    if (turn !== turns) return
    list.value = loaded
    if (problem.value?.at === null) problem.value = null
  }
  const load = (showId: string): Promise<void> =>
    refresh(showId).catch((error: unknown) => {
      problem.value = { ...problemOf(error, t('directoriesUnchanged')), at: null }
    })
  /** Does something with a directory, and tells beside it what went wrong; whether it went well. */
  async function act(at: string, ask: () => Promise<DirectoryList>): Promise<boolean> {
    busy.value = at
    problem.value = null
    try {
      list.value = await ask()
      turns++
      return true
    } catch (error) {
      problem.value = { ...problemOf(error, t('nothingSubmitted')), at }
      return false
    } finally {
      busy.value = null
    }
  }

  return {
    list,
    problem,
    busy,
    load,
    refresh,
    handIn: (showId: string, directory: string) => act(directory, () => api.handIn(showId, directory)),
    confirm: (showId: string, directory: string, code: string) =>
      act(directory, () => api.confirmListing(showId, directory, code)),
    add: (showId: string, listing: NewOwnListing) => act('own', () => api.addListing(showId, listing)),
    drop: (showId: string, id: string) => act('own', () => api.dropListing(showId, id)),
  }
})
