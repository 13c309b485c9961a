<script setup lang="ts">
import { computed } from 'vue'
import type { Stretch } from '@core/audio/measurement'
import type { Soundbite } from '@core/episode/fields'
import { timestampText } from '@core/words/timestamps'
import { dragAlong } from '../sound/drag'
import StretchEdges from '../sound/StretchEdges.vue'
import { t } from './messages'

/** Soundbites under the waveform: a stretch is drawn over an empty place, one that is there is pressed to hear it, and its edges are dragged. */
const props = defineProps<{
  soundbites: readonly Soundbite[]
  view: Stretch
  percent: (ms: number) => number
  chosenId: string | undefined
}>()
const emit = defineEmits<{
  add: [ms: number]
  /** The one that was begun is drawn. */
  drawn: []
  hear: [soundbite: Soundbite]
  drag: [id: string, edge: keyof Stretch, ms: number]
  put: [id: string, edge: keyof Stretch, ms: number]
}>()

const seen = computed(() =>
  props.soundbites.filter(({ fromMs, toMs }) => toMs > props.view.fromMs && fromMs < props.view.toMs),
)
const chosen = computed(() => seen.value.find(({ id }) => id === props.chosenId))
const boxOf = ({ fromMs, toMs }: Stretch) => {
  const left = Math.max(0, props.percent(fromMs))
  return { left: `${left}%`, width: `${Math.min(100, props.percent(toMs)) - left}%` }
}

/** A press makes one; while it is held, its end follows. */
function draw(event: PointerEvent): void {
  const lane = event.currentTarget as HTMLElement
  const { left, width } = lane.getBoundingClientRect()
  const { fromMs, toMs } = props.view
  const msAt = (share: number): number => fromMs + share * (toMs - fromMs)
  emit('add', msAt((event.clientX - left) / width))
  const follow = (share: number): void => {
    if (props.chosenId) emit('drag', props.chosenId, 'toMs', msAt(share))
  }
  dragAlong(event, lane, follow, () => emit('drawn'))
}
</script>

<template>
  <div class="lane" :title="t('dragOverStretch')" @pointerdown.self="draw">
    <button
      v-for="soundbite in seen"
      :key="soundbite.id"
      type="button"
      tabindex="-1"
      class="lane-block one-line small"
      :class="{ chosen: soundbite.id === chosenId }"
      :style="boxOf(soundbite)"
      :title="t('pressToHear', { from: timestampText(soundbite.fromMs), to: timestampText(soundbite.toMs) })"
      @click="emit('hear', soundbite)"
    >
      {{ soundbite.title || t('soundbite') }}
    </button>
    <StretchEdges
      v-if="chosen"
      :stretch="chosen"
      :name="chosen.title ? `“${chosen.title}”` : t('soundbiteNumber', { number: soundbites.indexOf(chosen) + 1 })"
      :view="view"
      :percent="percent"
      @drag="(edge, ms) => emit('drag', chosen!.id, edge, ms)"
      @put="(edge, ms) => emit('put', chosen!.id, edge, ms)"
    />
  </div>
</template>

<style scoped>
.lane {
  position: relative;
  height: 26px;
  overflow: hidden;
  border-radius: var(--round);
  background: var(--sheet-sunk);
  cursor: copy;
  touch-action: none;
}
.lane-block {
  position: absolute;
  inset-block: 1px;
  min-width: 3px;
  padding: 0 4px;
  border: 0;
  border-inline: 1px solid var(--accent);
  background: var(--sheet);
  color: var(--ink);
  text-align: start;
  cursor: pointer;
}
.lane-block.chosen {
  background: var(--accent-wash);
}
</style>
