import { deepEqual } from 'fast-equals'
import { computed, ref, type Ref } from 'vue'
import type { Episode } from '@contract/episodes'
import type { Sound } from '@contract/sound'
import type { Stretch } from '@core/audio/measurement'
import { keptBy } from '@core/audio/recipe'
import type { EpisodeText, Soundbite } from '@core/episode/fields'
import { soundbiteWants } from '@core/soundbites/soundbites'
import { usePlaying } from '../sound/playing'
import { soundbiteActs } from './soundbites'

/** The soundbites of the episode on the desk, with the sound that they are cut of. */
export function useDeskSoundbites(
  text: Ref<EpisodeText | null>,
  episode: Ref<Episode | null>,
  sound: Ref<Sound | null>,
  snap: (ms: number, view: Stretch) => number,
) {
  const playing = usePlaying()
  const chosenId = ref<string>()
  const soundbites = computed(() => (text.value?.soundbites ?? []).toSorted((one, other) => one.fromMs - other.fromMs))
  const source = computed(() => sound.value?.source ?? null)
  const wants = computed(() =>
    soundbiteWants(soundbites.value, source.value && keptBy(sound.value!.recipe, source.value.durationMs)),
  )
  const acts = soundbiteActs(
    () => text.value!.soundbites,
    () => source.value?.durationMs ?? 0,
    all => (text.value!.soundbites = all),
  )

  /** Where each is had as a file: of what is saved, and of a sound that is here and finished. */
  const downloads = computed<Record<string, string>>(() => {
    const { recipe, finishing } = sound.value ?? {}
    if (!episode.value || !source.value || source.value.address || (recipe && finishing !== 'done')) return {}
    const { id, text: saved } = episode.value
    const own = saved.soundbites.filter(each => soundbites.value.some(now => deepEqual(each, now)))
    return Object.fromEntries(
      own.map(({ id: soundbite, title }) => [
        soundbite,
        `/api/v1/episodes/${id}/soundbites/${soundbite}/download?name=${encodeURIComponent(title || saved.title)}`,
      ]),
    )
  })

  /** What the part of the desk shows. */
  const told = computed(() => ({
    soundbites: soundbites.value,
    chosenId: chosenId.value,
    hasSound: source.value !== null,
    isElsewhere: !!source.value?.address,
    isFull: acts.isFull(),
    downloads: downloads.value,
  }))

  /** Marks one at a moment, as far as more can be, and takes it in hand; answers which is in hand. */
  function add(atMs: number): string {
    if (!acts.isFull()) chosenId.value = acts.add(atMs)
    return chosenId.value ?? ''
  }
  const choose = (id: string): void => {
    chosenId.value = id
  }
  /** An edge that is dragged is drawn to where somebody begins to speak. */
  const drag = (id: string, edge: keyof Stretch, ms: number, view: Stretch): void => acts.move(id, edge, snap(ms, view))
  const hear = ({ fromMs, toMs }: Soundbite): void => playing.player?.playStretch(fromMs, toMs)

  return { soundbites, wants, acts, chosenId, told, add, choose, drag, hear }
}
