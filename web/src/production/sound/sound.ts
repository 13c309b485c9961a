import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Sound } from '@contract/sound'
import type { Recipe } from '@core/audio/recipe'
import { api } from '../../platform/api'
import { useDesk } from '../../show/episodes/desk'

/** The sound of the episode on the desk, beside what is written about it. */
export const useSound = defineStore('sound', () => {
  const desk = useDesk()
  const sound = shallowRef<Sound | null>(null)
  let episodeId: string | null = null
  let turns = 0

  async function open(id: string): Promise<void> {
    close()
    episodeId = id
    await refresh()
  }

  function close(): void {
    episodeId = null
    sound.value = null
  }

  /** Takes over what the server has by now; throws ApiError where that cannot be had. */
  async function refresh(): Promise<void> {
    const id = episodeId
    if (!id) return
    const turn = ++turns
    const fresh = await api.sound(id)
    // Of answers that overtake each other the one asked for last is the newest.
    if (turn === turns) take(id, fresh)
  }

  function take(id: string, fresh: Sound): void {
    if (id === episodeId && fresh.version >= (sound.value?.version ?? 0)) sound.value = fresh
  }

  /** Saves what is written first, since the tags tell it, then changes the sound; throws ApiError where it cannot. */
  async function act(change: (id: string, version: number) => Promise<Sound>): Promise<void> {
    const { id } = await desk.saved()
    if (!sound.value) return
    const changed = await change(id, sound.value.version)
    turns++
    take(id, changed)
  }

  const setRecipe = (recipe: Recipe | null): Promise<void> => act((id, version) => api.setRecipe(id, version, recipe))
  const finish = (recipe: Recipe): Promise<void> => act((id, version) => api.finish(id, version, recipe))
  /** Makes what is put together the audio of the episode. */
  const takeMix = (): Promise<void> =>
    act((id, soundVersion) => api.takeMix(id, { version: desk.episode!.version, soundVersion }))
  const cancelFinish = (): Promise<void> => act((id, version) => api.cancelFinish(id, version))

  /** Takes a file that is here already. */
  async function bringFromShelf(fileId: string): Promise<void> {
    await desk.bringFromShelf(fileId)
    await refresh()
  }

  async function bringFrom(address: string): Promise<void> {
    await desk.bringFrom(address)
    await refresh()
  }

  return { sound, open, close, refresh, setRecipe, finish, takeMix, cancelFinish, bringFrom, bringFromShelf }
})
