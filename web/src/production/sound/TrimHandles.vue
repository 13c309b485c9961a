<script setup lang="ts">
import { clock } from '@core/words/amounts'
import { dragAlong, stepMs } from './drag'
import { t } from './messages'

/** Two handles on a waveform: what lies outside them is cut off. */
const props = defineProps<{
  fromMs: number
  toMs: number
  durationMs: number
  percent: (ms: number) => number
  view: { fromMs: number; toMs: number }
  snap: (ms: number) => number
}>()
const emit = defineEmits<{ 'update:fromMs': [ms: number]; 'update:toMs': [ms: number] }>()
const leastMs = 500

function move(which: 'from' | 'to', ms: number): void {
  const whole = Math.round(Math.min(Math.max(ms, 0), props.durationMs))
  if (which === 'from') emit('update:fromMs', Math.min(whole, props.toMs - leastMs))
  else emit('update:toMs', Math.max(whole, props.fromMs + leastMs))
}

function drag(which: 'from' | 'to', event: PointerEvent): void {
  const box = (event.currentTarget as HTMLElement).parentElement!
  const { fromMs, toMs } = props.view
  dragAlong(event, box, share => move(which, props.snap(fromMs + share * (toMs - fromMs))))
}

function key(which: 'from' | 'to', event: KeyboardEvent): void {
  const step = stepMs(event)
  if (step === undefined) return
  event.preventDefault()
  move(which, (which === 'from' ? props.fromMs : props.toMs) + step)
}
</script>

<template>
  <button
    v-for="which in ['from', 'to'] as const"
    :key="which"
    type="button"
    role="slider"
    class="handle"
    :class="which"
    :style="{ left: `${percent(which === 'from' ? fromMs : toMs)}%` }"
    :aria-label="which === 'from' ? t('whereTheSoundBegins') : t('whereTheSoundEnds')"
    :aria-valuemin="0"
    :aria-valuemax="durationMs"
    :aria-valuenow="which === 'from' ? fromMs : toMs"
    :aria-valuetext="clock(which === 'from' ? fromMs : toMs)"
    @pointerdown="event => drag(which, event)"
    @keydown="event => key(which, event)"
  />
</template>

<style scoped>
.handle {
  position: absolute;
  inset-block: -3px;
  width: 24px;
  margin-left: -12px;
  padding: 0;
  border: 0;
  background: none;
  cursor: ew-resize;
  touch-action: none;
}
.handle::before {
  content: '';
  position: absolute;
  inset-block: 0;
  left: 10px;
  width: 4px;
  border-radius: 2px;
  background: var(--accent);
}
.handle::after {
  content: '';
  position: absolute;
  top: calc(50% - 8px);
  width: 8px;
  height: 16px;
  border-radius: 3px;
  background: var(--accent);
}
.from::after {
  left: 12px;
}
.to::after {
  left: 4px;
}
</style>
