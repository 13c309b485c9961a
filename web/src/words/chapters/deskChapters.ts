import { storeToRefs } from 'pinia'
import { computed, type Ref } from 'vue'
import { beginningsAfter, pausesOf } from '@core/audio/pauses'
import { deliveredType, keptBy } from '@core/audio/recipe'
import { snapped } from '@core/audio/snap'
import { chaptersOf, deliveredChapters } from '@core/chapters/chapters'
import { chapterWants, timesGoBack } from '@core/chapters/findings'
import { marksInNotes } from '@core/chapters/marks'
import { type Chapter, type EpisodeText, longestSoundMs } from '@core/episode/fields'
import type { Stretch } from '@core/audio/measurement'
import { usePlaying } from '../../production/sound/playing'
import { useSound } from '../../production/sound/sound'
import { useWaveforms } from '../../production/sound/waveforms'
import { chapterActs } from './chapters'

/** The chapters of the episode on the desk, with the sound that they are chapters of. */
export function useDeskChapters(text: Ref<EpisodeText | null>) {
  const { sound } = storeToRefs(useSound())
  const playing = usePlaying()
  const waves = useWaveforms()
  const source = computed(() => sound.value?.source ?? null)
  /** What the file brings. */
  const brought = computed(() => source.value?.chapters ?? [])
  /** Where the sound that goes out begins and ends in the source; nothing while there is none. */
  const kept = computed(() => source.value && keptBy(sound.value!.recipe, source.value.durationMs))
  const beginsMs = computed(() => kept.value?.fromMs ?? 0)

  const isM4a = computed(
    () => source.value !== null && deliveredType(sound.value!.recipe, source.value.type) === 'audio/mp4',
  )

  const chapters = computed(() => (text.value ? chaptersOf(text.value, brought.value).chapters : []))
  /** By the clock of the sound that goes out. */
  const delivered = computed(() =>
    deliveredChapters(chapters.value, { kept: [kept.value ?? { fromMs: 0, toMs: longestSoundMs }] }),
  )
  const wants = computed(() => {
    if (!text.value) return []
    const goBack = text.value.chapters === null && marksInNotes(text.value.notes).are === 'out of order'
    return [...(goBack ? [timesGoBack] : []), ...chapterWants(chapters.value, kept.value, isM4a.value)]
  })
  const acts = chapterActs(
    () => text.value!,
    () => brought.value,
    all => (text.value!.chapters = all),
  )

  /** Where somebody begins to speak: moments are drawn there. */
  const beginnings = computed(() => {
    const waveform = source.value && waves.waveforms[source.value.id]
    return waveform ? [0, ...beginningsAfter(pausesOf(waveform))] : [0]
  })
  const snap = (ms: number, { fromMs, toMs }: Stretch): number =>
    snapped(ms, beginnings.value, (toMs - fromMs) / stretchesPerView)

  const hear = ({ fromMs }: Chapter): void => playing.player?.playStretch(fromMs, source.value!.durationMs)

  return { source, brought, beginsMs, chapters, delivered, wants, acts, snap, hear }
}

/** A pause draws a moment to itself from as far as this part of what is seen. */
const stretchesPerView = 120
