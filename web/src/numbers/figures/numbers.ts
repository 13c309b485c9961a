import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type {
  AgeNumbers,
  EpisodeComparison,
  EpisodeNumbers,
  ListenerList,
  ListenerQuery,
  NumbersFilter,
  ShowNumbers,
} from '@contract/numbers'
import { api } from '../../platform/api'

/** What the downloads of the open show come to, as it was asked for last. */
export const useNumbers = defineStore('numbers', () => {
  const figures = shallowRef<ShowNumbers | null>(null)
  let turns = 0

  /** Loads what is asked for; what is overtaken by another question is left. */
  async function load(showId: string, filter: NumbersFilter): Promise<void> {
    const turn = ++turns
    const loaded = await api.numbers(showId, filter)
    if (turn === turns) figures.value = loaded
  }
  function leave(): void {
    turns++
    figures.value = null
  }
  function take(marks: ShowNumbers['marks']): void {
    if (figures.value) figures.value = { ...figures.value, marks }
  }
  async function addMark(showId: string, mark: { day: string; words: string }): Promise<void> {
    take((await api.addMark(showId, mark)).marks)
  }
  async function removeMark(id: string): Promise<void> {
    take((await api.removeMark(id)).marks)
  }

  const fileOf = (showId: string, form: 'csv' | 'json', filter: NumbersFilter): string =>
    api.numbersFile(showId, form, filter)
  const newest = async (showId: string): Promise<AgeNumbers | null> => (await api.newestNumbers(showId)).numbers
  const ofEpisode = (episodeId: string): Promise<EpisodeNumbers> => api.episodeNumbers(episodeId)
  const compare = (showId: string, ids: readonly string[]): Promise<EpisodeComparison> =>
    api.compareEpisodes(showId, ids)
  const listenersBehind = (showId: string, query: Partial<ListenerQuery>): Promise<ListenerList> =>
    api.listenersBehind(showId, query)

  return { figures, load, leave, addMark, removeMark, fileOf, newest, ofEpisode, compare, listenersBehind }
})
