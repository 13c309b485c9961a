import { useDebounceFn } from '@vueuse/core'
import { onMounted, ref, shallowRef } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import { api } from '../../platform/api'

/** The released episodes of a show to choose from, the newest first; looked for by words where there are more. */
export function useReleased(showId: () => string) {
  const episodes = shallowRef<EpisodeSummary[]>([])
  /** Whether it is known that there are none. */
  const isBeforeFirst = ref(false)
  const load = async (find = ''): Promise<void> => {
    const page = await api.episodes(showId(), { status: 'released', limit: 100, ...(find && { find }) })
    episodes.value = page.episodes
    isBeforeFirst.value = find === '' && page.episodes.length === 0
  }
  const find = useDebounceFn((words: string) => load(words).catch(() => undefined), 200)
  onMounted(() => load().catch(() => undefined))
  return { episodes, isBeforeFirst, find }
}

export const nameOf = ({ number, title }: Pick<EpisodeSummary, 'number' | 'title'>): string =>
  number === null ? title : `${number} · ${title}`
