import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Shelf } from '@contract/shelf'
import { api } from '../../platform/api'

/** The files of the show that is open. */
export const useShelf = defineStore('shelf', () => {
  const shelf = ref<Shelf | null>(null)

  async function load(showId: string): Promise<void> {
    shelf.value = await api.shelf(showId, { limit: Math.min(100, Math.max(50, shelf.value?.files.length ?? 0)) })
  }

  /** Loads the next files behind those that are here. */
  async function loadMore(showId: string): Promise<void> {
    const known = shelf.value
    if (!known?.after) return
    const next = await api.shelf(showId, { after: known.after })
    if (shelf.value === known) shelf.value = { ...next, files: [...known.files, ...next.files] }
  }

  async function remove(showId: string, fileId: string): Promise<void> {
    await api.removeFile(showId, fileId)
    await load(showId)
  }

  /** Begins an episode with a file that is here already; answers its id. */
  async function beginWith(showId: string, fileId: string): Promise<string> {
    const { id } = await api.createEpisode(showId)
    await api.useFile(id, fileId)
    return id
  }

  return { shelf, load, loadMore, remove, beginWith }
})
