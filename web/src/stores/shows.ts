import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import type { NewShow, Show, ShowChange } from '@contract/shows'
import { api } from '../api'
import { unchanged } from '../api/client'

/** The shows, and the episodes of the one that is open. */
export const useShows = defineStore('shows', () => {
  const shows = ref<Show[] | null>(null)
  const episodes = shallowRef<EpisodeSummary[] | null>(null)
  let openShowId: string | null = null
  let tag: string | null = null
  let turns = 0

  async function load(): Promise<Show[]> {
    shows.value = await api.shows()
    return shows.value
  }

  const bySlug = (slug: string): Show | null => shows.value?.find(show => show.slug === slug) ?? null

  function replace(show: Show): Show {
    shows.value = [...(shows.value ?? []).filter(other => other.id !== show.id), show]
    return show
  }

  async function create(show: NewShow): Promise<Show> {
    return replace(await api.createShow(show))
  }

  async function change(id: string, facts: ShowChange): Promise<Show> {
    return replace(await api.changeShow(id, facts))
  }

  async function loadEpisodes(showId: string): Promise<void> {
    if (openShowId !== showId) {
      episodes.value = null
      tag = null
    }
    openShowId = showId
    const turn = ++turns
    const loaded = await api.episodes(showId, tag)
    // Of answers that overtake each other the one asked for last is the newest.
    if (turn !== turns || loaded === unchanged) return
    episodes.value = loaded.answer
    tag = loaded.tag
  }

  return { shows, episodes, load, bySlug, create, change, loadEpisodes }
})
