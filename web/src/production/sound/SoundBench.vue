<script setup lang="ts">
import { ZoomIn, ZoomOut } from '@lucide/vue'
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import { computed, onUnmounted, reactive, ref, watch } from 'vue'
import type { Finding } from '@core/audio/findings'
import type { AudioFile, Sound } from '@contract/sound'
import type { Stretch } from '@core/audio/measurement'
import { keptBy, targetFor } from '@core/audio/recipe'
import { heardLufs } from '@core/audio/usual'
import { clock } from '@core/words/amounts'
import IconButton from '../../platform/parts/IconButton.vue'
import LoudnessStrip from './LoudnessStrip.vue'
import SoundWave from './SoundWave.vue'
import SoundNumbers from './SoundNumbers.vue'
import { useSoundPlayer } from './player'
import { usePlaying } from './playing'
import { useWaveforms } from './waveforms'
import { t } from './messages'

/** Plays and shows an episode's sound: the source, and the finished file against it at equal loudness. `low` leaves its numbers out. */
const props = defineProps<{ sound: Sound; source: AudioFile; kept: Stretch | null; low?: boolean }>()
type Place = { percent: (ms: number) => number; view: Stretch }
defineSlots<{ handles(place: Place): unknown; lane(place: Place): unknown }>()

const waves = useWaveforms()
const view = ref<Stretch>({ fromMs: 0, toMs: Math.max(1, props.source.durationMs) })
const finished = computed(() => props.sound.finished)
const startMs = computed(() => (finished.value ? keptBy(props.sound.recipe, props.source.durationMs).fromMs : 0))

/** What is put together here is heard once it is finished; of a file both are. */
const isMix = computed(() => props.source.origin === 'mix')
const tracks = computed(() =>
  [...(isMix.value ? [] : [props.source]), ...(finished.value ? [finished.value] : [])].map(file => ({
    address: file.playAddress,
    durationMs: file.durationMs,
    offsetMs: file === props.source ? 0 : startMs.value,
    lufs: file.measurement?.integratedLufs ?? null,
  })),
)
const heardChoices = [t('source'), t('finished')].map((name, index) => ({ name, index }))
const { current, playing, atMs, unreachable, rate, load, seek, playStretch, toggle, setRate } = useSoundPlayer(
  () => tracks.value,
)

watch(
  () => [props.source.id, finished.value?.id],
  ([source], before) => {
    if (source !== before?.[0]) view.value = { fromMs: 0, toMs: Math.max(1, props.source.durationMs) }
    load(tracks.value.length - 1)
  },
  { immediate: true },
)
watch(
  () => [props.source, finished.value],
  files => {
    for (const file of files) if (file) void waves.need(file)
  },
  { immediate: true },
)

const silences = computed(() => {
  const { headSilenceMs = 0, tailSilenceMs = 0, durationMs = 0, gaps = [] } = props.source.measurement ?? {}
  const ends = [
    { fromMs: 0, toMs: headSilenceMs },
    { fromMs: durationMs - tailSilenceMs, toMs: durationMs },
  ]
  return [...ends.filter(({ fromMs, toMs }) => toMs - fromMs > 300), ...gaps]
})
const clips = computed(() => props.source.measurement?.clips ?? [])
const isZoomed = computed(() => view.value.toMs - view.value.fromMs < props.source.durationMs - 1)
const ownLufs = computed(() => {
  const { measurement } = finished.value ?? props.source
  return measurement && heardLufs(measurement)
})
const target = computed(() => targetFor(props.sound.recipe ?? props.sound.usual, 2))

const offsetMs = computed(() => tracks.value[current.value]?.offsetMs ?? 0)
/** Where in the source it plays, whichever track is heard. */
const sourceMs = computed(() => atMs.value + offsetMs.value)

function seekSource(ms: number): void {
  seek(ms - offsetMs.value)
}
function zoom(factor: number): void {
  const width = Math.min(props.source.durationMs, Math.max(500, (view.value.toMs - view.value.fromMs) * factor))
  const fromMs = Math.min(Math.max(0, sourceMs.value - width / 2), props.source.durationMs - width)
  view.value = { fromMs, toMs: fromMs + width }
}
function hear(place: Stretch): void {
  if (current.value !== 0) load(0)
  void playStretch(Math.max(0, place.fromMs - 1000), Math.max(place.fromMs + 1000, place.toMs))
}
onUnmounted(
  usePlaying().attach(
    reactive({
      atMs: sourceMs,
      isPlaying: playing,
      rate,
      toggle,
      seek: seekSource,
      setRate,
      playStretch: (fromMs: number, toMs: number) => void playStretch(fromMs - offsetMs.value, toMs - offsetMs.value),
    }),
  ),
)

/** How far along the drawn stretch a moment is. */
const percent = (ms: number): number => ((ms - view.value.fromMs) / (view.value.toMs - view.value.fromMs)) * 100
defineExpose({ hear: (finding: Finding) => hear(finding.places[0]!) })
</script>

<template>
  <div class="bench boxed">
    <Button
      type="button"
      class="play"
      :label="playing ? t('pause') : t('play')"
      outlined
      :disabled="tracks.length === 0"
      :title="tracks.length === 0 ? t('heardOnceFinished') : undefined"
      @click="toggle"
    />
    <div class="waves spaced min-w-0 gap-1">
      <SoundWave
        :waveform="waves.waveforms[source.id] ?? null"
        :duration-ms="source.durationMs"
        :at-ms="sourceMs"
        :label="t('playbackPosition')"
        :from-ms="view.fromMs"
        :to-ms="view.toMs"
        :silences="silences"
        :marks="clips"
        :kept="kept"
        :target-lufs="target"
        :lower="finished !== null"
        @seek="seekSource"
        @mark="hear"
      >
        <slot name="handles" :percent="percent" :view="view" />
      </SoundWave>
      <slot name="lane" :percent="percent" :view="view" />
      <SoundWave
        v-if="finished"
        :waveform="waves.waveforms[finished.id] ?? null"
        :duration-ms="finished.durationMs"
        :at-ms="sourceMs - startMs"
        :label="t('placeInFinished')"
        :from-ms="view.fromMs - startMs"
        :to-ms="view.toMs - startMs"
        :silences="[]"
        :marks="[]"
        :kept="null"
        :target-lufs="target"
        lower
        @seek="ms => seekSource(ms + startMs)"
      />
    </div>
    <div class="beside-wave spaced gap-1 justify-items-end">
      <span class="figures time quiet small" data-testid="place"
        >{{ clock(atMs) }}<br />{{ clock(tracks[current]?.durationMs ?? source.durationMs) }}</span
      >
      <span class="flex">
        <IconButton name="Zoom in" :icon="ZoomIn" :disabled="view.toMs - view.fromMs <= 500" @click="zoom(0.4)" />
        <IconButton name="Zoom out" :icon="ZoomOut" :disabled="!isZoomed" @click="zoom(2.5)" />
      </span>
    </div>
    <div v-if="!low" class="flowing col-span-full gap-x-4 gap-y-2">
      <div v-if="tracks.length > 1" class="flowing gap-1">
        <SelectButton
          size="small"
          :model-value="current"
          :allow-empty="false"
          :options="heardChoices"
          option-label="name"
          option-value="index"
          :aria-label="t('whatIsHeard')"
          @update:model-value="(index: number) => load(index)"
        />
        <span class="small quiet">{{ t('heardEquallyLoud') }}</span>
      </div>
      <SoundNumbers v-if="source.measurement" :source="source" :finished="finished" :report="sound.report" />
      <LoudnessStrip
        v-if="ownLufs !== null && sound.company.length"
        :company="sound.company"
        :own="ownLufs"
        :target-lufs="target"
      />
    </div>
    <span v-if="unreachable" class="fault col-span-full">{{ t('audioUnreached') }}</span>
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: var(--space-2) var(--space-3);
  align-items: center;
  padding: var(--space-3) var(--space-4);
}
.play {
  min-width: 5.2rem;
}
.time {
  text-align: right;
  line-height: 1.4;
}
@media (max-width: 620px) {
  .bench {
    grid-template-columns: auto minmax(0, 1fr);
  }
  .waves {
    grid-row: 2;
    grid-column: 1 / -1;
  }
  .beside-wave {
    display: flex;
    align-items: center;
    justify-content: end;
  }
}
</style>
