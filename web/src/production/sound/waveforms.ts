import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { AudioFile } from '@contract/sound'
import type { Pyramid } from '@core/audio/pyramid'
import { api } from '../../platform/api'
import { passes } from '../../platform/api/client'

const againMs = 2_000

/** The waveforms of files, fetched once: a file never changes. */
export const useWaveforms = defineStore('waveforms', () => {
  const waveforms = ref<Record<string, Pyramid>>({})

  /** Fetches a file's waveform where it is measured and not here yet. */
  async function need(file: AudioFile): Promise<void> {
    if (!file.measurement || waveforms.value[file.id]) return
    const waveform = await api.waveform(file.waveformAddress).catch(error => {
      if (passes(error)) setTimeout(() => void need(file), againMs)
      return null
    })
    if (waveform) waveforms.value = { ...waveforms.value, [file.id]: waveform }
  }

  return { waveforms, need }
})
