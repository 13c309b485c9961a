<script setup lang="ts">
import { computed } from 'vue'
import type { Stretch } from '@core/audio/measurement'
import { type Cue, isTimed, type TimedCue } from '@core/transcript/cue'
import type { CueEdge } from '@core/transcript/edit'
import { momentText } from '@core/words/moments'
import { dragAlong, stepMs } from '../sound/drag'

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
const edges = [
  { edge: 'fromMs', says: 'Beginning' },
  { edge: 'toMs', says: 'End' },
] as const
const isSeen = (ms: number): boolean => ms >= props.view.fromMs && ms <= props.view.toMs

function drag(cue: TimedCue, edge: CueEdge, event: PointerEvent): void {
  const { fromMs, toMs } = props.view
  const lane = (event.currentTarget as HTMLElement).parentElement!
  dragAlong(event, lane, share => emit('drag', cue.id, edge, fromMs + share * (toMs - fromMs)))
}
function key(cue: TimedCue, edge: CueEdge, event: KeyboardEvent): void {
  const step = stepMs(event)
  if (step === undefined) return
  event.preventDefault()
  emit('put', cue.id, edge, cue[edge] + step)
}
</script>

<template>
  <div class="lane">
    <button
      v-for="cue in drawn"
      :key="cue.id"
      type="button"
      tabindex="-1"
      class="block"
      :class="{ heard: cue.id === heardId, chosen: cue.id === chosenId }"
      :style="boxOf(cue)"
      :title="cue.text"
      @click="emit('choose', cue)"
    >
      {{ cue.text }}
    </button>
    <template v-if="chosen">
      <button
        v-for="{ edge, says } in edges"
        v-show="isSeen(chosen[edge])"
        :key="edge"
        type="button"
        role="slider"
        class="edge"
        :class="edge"
        :style="{ left: `${percent(chosen[edge])}%` }"
        :aria-label="`${says} of cue ${cues.indexOf(chosen) + 1}`"
        aria-valuemin="0"
        :aria-valuemax="Math.max(chosen.toMs, view.toMs)"
        :aria-valuenow="chosen[edge]"
        :aria-valuetext="momentText(chosen[edge])"
        :title="`${says}, ${momentText(chosen[edge])}: drag to move`"
        @pointerdown="event => drag(chosen!, edge, event)"
        @keydown="event => key(chosen!, edge, event)"
      />
    </template>
    <span v-if="seen.length > mostDrawn" class="small quiet">{{ seen.length }} cues; closer, each is seen.</span>
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
.block {
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
.block.chosen {
  background: var(--accent-wash);
  color: var(--ink);
}
.block.heard {
  background: var(--accent);
  color: var(--on-accent);
}
/* An edge lies outside of its cue, so that the words stay to be read, and is wide enough for a finger. */
.edge {
  position: absolute;
  inset-block: 1px;
  width: 24px;
  padding: 0;
  border: 0 solid var(--accent);
  background: repeating-linear-gradient(90deg, var(--edge-strong) 0 1px, transparent 1px 4px) center / 9px 10px
    no-repeat var(--sheet-sunk);
  cursor: ew-resize;
  touch-action: none;
}
.edge.fromMs {
  border-inline-end-width: 3px;
  transform: translateX(-100%);
}
.edge.toMs {
  border-inline-start-width: 3px;
}
.quiet {
  display: block;
  padding: 3px var(--space-2);
}
</style>
