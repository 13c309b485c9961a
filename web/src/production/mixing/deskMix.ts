import { deepEqual } from 'fast-equals'
import { storeToRefs } from 'pinia'
import { v4 as uuidV4 } from 'uuid'
import { computed, shallowRef, watch, type Ref } from 'vue'
import type { AudioFile } from '@contract/sound'
import type { EpisodeText } from '@core/episode/fields'
import { isOfNewerHouse, type MixDocument } from '@core/mix/document'
import { emptyMix, newBed, newPiece, withBed, withPiece } from '@core/mix/edits'
import { layoutOf } from '@core/mix/layout'
import { useSound } from '../sound/sound'
import { useWaveforms } from '../sound/waveforms'

/** What the episode on the desk is put together of, with its files. */
export function useDeskMix(text: Ref<EpisodeText>) {
  const { sound } = storeToRefs(useSound())
  const waves = useWaveforms()
  /** Files that were taken from the shelf since the server last told those of the mix. */
  const brought = shallowRef<readonly AudioFile[]>([])

  const isNewer = computed(() => text.value.mix !== null && isOfNewerHouse(text.value.mix))
  const mix = computed(() => (isNewer.value ? null : text.value.mix))
  const files = computed(() => {
    const { source = null, parts = [] } = sound.value ?? {}
    const all = [...brought.value, ...parts, ...(source && source.origin !== 'mix' ? [source] : [])]
    return new Map(all.map(file => [file.id, file]))
  })
  const lengthOf = (fileId: string): number => files.value.get(fileId)?.durationMs ?? 0
  const layout = computed(() => layoutOf(mix.value ?? emptyMix, lengthOf))
  const isTaken = computed(() => mix.value !== null && deepEqual(mix.value, sound.value?.taken))

  watch(
    files,
    known => {
      for (const file of known.values()) void waves.need(file)
    },
    { immediate: true },
  )

  function change(to: MixDocument | null): void {
    text.value = { ...text.value, mix: to }
  }
  const whole = (file: AudioFile) => newPiece(uuidV4(), file.id, [{ fromMs: 0, toMs: file.durationMs }])

  /** With the audio that is here already as its first piece. */
  function begin(): void {
    const source = sound.value?.source
    change(source && source.origin !== 'mix' && !source.address ? withPiece(emptyMix, whole(source)) : emptyMix)
  }
  function addPiece(file: AudioFile): void {
    brought.value = [...brought.value, file]
    change(withPiece(mix.value ?? emptyMix, whole(file)))
  }
  function addBed(file: AudioFile): void {
    const [first] = mix.value?.pieces ?? []
    if (!first) return
    brought.value = [...brought.value, file]
    change(withBed(mix.value!, newBed(uuidV4(), file.id, first.id, file.durationMs)))
  }

  return { mix, isNewer, files, layout, isTaken, change, begin, addPiece, addBed }
}
