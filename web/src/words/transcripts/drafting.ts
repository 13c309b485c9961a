import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { TranscriptDraft } from '@contract/drafts'
import { useSession } from '../../people/account/session'
import { api } from '../../platform/api'

/** The draft that a copyist was asked for, for the episode on the desk. */
export const useDrafting = defineStore('drafting', () => {
  const sessions = useSession()
  /** The host of the copyist; null where there is none. */
  const transcriptionHost = computed(() => sessions.session?.transcriptionHost ?? null)
  const draft = shallowRef<TranscriptDraft | null>(null)
  let episodeId: string | null = null

  async function load(id: string): Promise<void> {
    if (id !== episodeId) draft.value = null
    episodeId = id
    if (!transcriptionHost.value) return
    const fresh = await api.draft(id)
    if (id === episodeId) draft.value = fresh
  }
  async function begin(language: string): Promise<void> {
    draft.value = await api.askForDraft(episodeId!, language)
  }
  async function stop(): Promise<void> {
    await api.stopDraft(episodeId!)
    draft.value = null
  }
  return { transcriptionHost, draft: computed(() => draft.value), load, begin, stop }
})
