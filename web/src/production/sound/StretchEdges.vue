<script setup lang="ts">
import type { Stretch } from '@core/audio/measurement'
import { timestampText } from '@core/words/timestamps'
import { dragAlong, stepMs } from './drag'
import { t } from './messages'

/** Beginning and end of a stretch in a lane under the waveform, each to be dragged, or moved by keys. */
const props = defineProps<{
  stretch: Stretch
  /** As it is called after “Beginning of”. */
  name: string
  view: Stretch
  percent: (ms: number) => number
}>()
type Edge = keyof Stretch
const emit = defineEmits<{ drag: [edge: Edge, ms: number]; put: [edge: Edge, ms: number] }>()
const edges = [
  { edge: 'fromMs', says: t('beginning') },
  { edge: 'toMs', says: t('end') },
] as const
const isSeen = (ms: number): boolean => ms >= props.view.fromMs && ms <= props.view.toMs

function drag(edge: Edge, event: PointerEvent): void {
  const { fromMs, toMs } = props.view
  const lane = (event.currentTarget as HTMLElement).parentElement!
  dragAlong(event, lane, share => emit('drag', edge, fromMs + share * (toMs - fromMs)))
}
function key(edge: Edge, event: KeyboardEvent): void {
  const step = stepMs(event)
  if (step === undefined) return
  event.preventDefault()
  emit('put', edge, props.stretch[edge] + step)
}
</script>

<template>
  <button
    v-for="{ edge, says } in edges"
    v-show="isSeen(stretch[edge])"
    :key="edge"
    type="button"
    role="slider"
    class="edge"
    :class="edge"
    :style="{ left: `${percent(stretch[edge])}%` }"
    :aria-label="t('edgeOf', { edge: says, name })"
    aria-valuemin="0"
    :aria-valuemax="Math.max(stretch.toMs, view.toMs)"
    :aria-valuenow="stretch[edge]"
    :aria-valuetext="timestampText(stretch[edge])"
    :title="t('dragEdge', { edge: says, time: timestampText(stretch[edge]) })"
    @pointerdown.stop="event => drag(edge, event)"
    @keydown="event => key(edge, event)"
  />
</template>

<style scoped>
/* An edge lies outside of its stretch, so that its words stay to be read, and is wide enough for a finger. */
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
</style>
