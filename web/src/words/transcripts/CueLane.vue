<script setup lang="ts">
import { computed } from 'vue'
import type { Stretch } from '@core/audio/measurement'
import { type Cue, isTimed } from '@core/transcript/cue'
import type { CueEdge } from '@core/transcript/edit'
import StretchEdges from '../../production/sound/StretchEdges.vue'
import { t } from './messages'

/** The cues under the waveform, as far as they are seen: a press jumps to one, and the chosen one has edges to drag. */
const props = defineProps<{
  cues: readonly Cue[]
  view: Stretch
  percent: (ms: number) => number
  heardId: string | undefined
  chosenId: string | undefined
}>()
const emit = defineEmits<{
  choose: [cue: Cue]
  drag: [id: string, edge: CueEdge, ms: number]
  put: [id: string, edge: CueEdge, ms: number]
}>()

const mostDrawn = 160
const seen = computed(() =>
  props.cues.filter(isTimed).filter(({ fromMs, toMs }) => toMs > props.view.fromMs && fromMs < props.view.toMs),
)
/** Of too many none is told apart; closer they are drawn. */
const drawn = computed(() => (seen.value.length > mostDrawn ? [] : seen.value))
const chosen = computed(() => drawn.value.find(({ id }) => id === props.chosenId))
const boxOf = ({ fromMs, toMs }: Stretch) => {
  const left = Math.max(0, props.percent(fromMs))
  return { left: `${left}%`, width: `${Math.min(100, props.percent(toMs)) - left}%` }
}
</script>

<template>
  <div class="lane">
    <button
      v-for="cue in drawn"
      :key="cue.id"
      type="button"
      tabindex="-1"
      class="lane-block"
      :class="{ heard: cue.id === heardId, chosen: cue.id === chosenId }"
      :style="boxOf(cue)"
      :title="cue.text"
      @click="emit('choose', cue)"
    >
      {{ cue.text }}
    </button>
    <StretchEdges
      v-if="chosen"
      :stretch="chosen"
      :name="t('cueNumber', { number: cues.indexOf(chosen) + 1 })"
      :view="view"
      :percent="percent"
      @drag="(edge, ms) => emit('drag', chosen!.id, edge, ms)"
      @put="(edge, ms) => emit('put', chosen!.id, edge, ms)"
    />
    <span v-if="seen.length > mostDrawn" class="small quiet">{{ t('zoomForCues', { count: seen.length }) }}</span>
  </div>
</template>

<style scoped>
.lane {
  position: relative;
  height: 26px;
  overflow: hidden;
  border-radius: var(--round);
  background: var(--sheet-sunk);
}
.lane-block {
  position: absolute;
  inset-block: 1px;
  padding: 0 3px;
  border: 0;
  border-inline-start: 1px solid var(--edge-strong);
  background: var(--sheet);
  color: var(--ink-soft);
  font-size: var(--text-s);
  text-align: start;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: clip;
  cursor: pointer;
}
.lane-block.chosen {
  background: var(--accent-wash);
  color: var(--ink);
}
.lane-block.heard {
  background: var(--accent);
  color: var(--on-accent);
}
.quiet {
  display: block;
  padding: 3px var(--space-2);
}
</style>
