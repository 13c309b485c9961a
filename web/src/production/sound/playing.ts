import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'

/** What plays an episode's sound, by the clock of its source. */
export interface Playing {
  atMs: number
  isPlaying: boolean
  toggle(): void
  seek(ms: number): void
  /** Plays a stretch and stops. */
  playStretch(fromMs: number, toMs: number): void
  /** 1 is as it was spoken. */
  rate: number
  setRate(rate: number): void
}

/** The sound on the desk, for whatever part of it goes by its time; nothing while there is no sound. */
export const usePlaying = defineStore('playing', () => {
  const player = shallowRef<Playing | null>(null)
  const atMs = computed(() => player.value?.atMs ?? 0)

  /** Takes a player over; answers what lets go of it again. */
  function attach(own: Playing): () => void {
    player.value = own
    return () => {
      if (player.value === own) player.value = null
    }
  }
  return { player, atMs, attach }
})
