import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Vocabulary } from '@contract/episodes'
import { api } from '../../platform/api'

/** What the episodes of the open show have used: tags and people, for completing. */
export const useVocabulary = defineStore('vocabulary', () => {
  const known = shallowRef<Vocabulary>({ tags: [], people: [], seasons: [] })
  const tags = computed(() => known.value.tags.map(({ tag }) => tag))
  const counted = computed(() => known.value.tags)
  const seasons = computed(() => known.value.seasons)
  const people = computed(() => known.value.people)

  /** Asks what was used; without it nothing is completed, and everything can be written. */
  async function load(showId: string): Promise<void> {
    known.value = await api.vocabulary(showId).catch(() => known.value)
  }
  return { tags, counted, people, seasons, load }
})
