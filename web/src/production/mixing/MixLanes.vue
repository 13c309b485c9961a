<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Pyramid } from '@core/audio/pyramid'
import type { MixLayout, PlacedBed } from '@core/mix/layout'
import { turnsOf } from '@core/mix/turns'
import { clock } from '@core/words/amounts'
import { movedByKey } from '../sound/position'
import MixWave from './MixWave.vue'
import { t } from './messages'

/** What is heard when: the pieces in a row, the music under them, and where it plays. Its rows tell the same in words and numbers. */
const props = defineProps<{
  layout: MixLayout
  atMs: number
  nameOf: (fileId: string) => string
  lengthOf: (fileId: string) => number
  waveforms: Readonly<Record<string, Pyramid>>
}>()
const emit = defineEmits<{ seek: [ms: number] }>()

const percent = (ms: number): number => (ms / Math.max(1, props.layout.durationMs)) * 100
const box = ({ atMs, durationMs }: { atMs: number; durationMs: number }) => ({
  left: `${percent(atMs)}%`,
  width: `${percent(durationMs)}%`,
})
/** Music that is heard at the same time lies in lanes one under the other. */
const lanes = computed(() => {
  const found: PlacedBed[][] = []
  for (const placed of props.layout.beds) {
    const free = found.find(lane => lane.every(other => apart(other, placed)))
    if (free) free.push(placed)
    else found.push([placed])
  }
  return found
})
const lanesBox = ref<HTMLElement>()
function press(event: MouseEvent): void {
  const { left, width } = lanesBox.value!.getBoundingClientRect()
  emit('seek', ((event.clientX - left) / width) * props.layout.durationMs)
}
function key(event: KeyboardEvent): void {
  const to = movedByKey(event, props.atMs, props.layout.durationMs)
  if (to !== undefined) emit('seek', to)
}
const apart = (one: PlacedBed, other: PlacedBed): boolean =>
  one.atMs + one.durationMs <= other.atMs || other.atMs + other.durationMs <= one.atMs

const steps = [1, 2, 5, 10, 30, 60, 120, 300, 600, 1_800, 3_600, 7_200].map(seconds => seconds * 1000)
const ticks = computed(() => {
  const { durationMs } = props.layout
  const step = steps.find(each => durationMs / each <= 10) ?? steps.at(-1)!
  return Array.from({ length: Math.floor(durationMs / step) + 1 }, (_, n) => n * step).filter(
    ms => percent(ms) < 97 || ms === 0,
  )
})
</script>

<template>
  <div class="lanes-box boxed">
    <div ref="lanesBox" class="lanes" data-testid="lanes" @click="press">
      <div
        class="ticks figures small quiet"
        role="slider"
        tabindex="0"
        :aria-label="t('placeInMix')"
        aria-valuemin="0"
        :aria-valuemax="Math.round(layout.durationMs / 1000)"
        :aria-valuenow="Math.round(atMs / 1000)"
        :aria-valuetext="t('positionOf', { time: clock(atMs), length: clock(layout.durationMs) })"
        @keydown="key"
      >
        <span v-for="ms in ticks" :key="ms" :style="{ left: `${percent(ms)}%` }">{{ clock(ms) }}</span>
      </div>
      <div class="row pieces" aria-hidden="true">
        <div
          v-for="placed in layout.pieces"
          :key="placed.piece.id"
          class="block"
          :style="box(placed)"
          :title="nameOf(placed.piece.fileId)"
        >
          <MixWave :waveform="waveforms[placed.piece.fileId] ?? null" :stretches="placed.timeline.kept" />
          <span class="name one-line small">{{ nameOf(placed.piece.fileId) }}</span>
        </div>
      </div>
      <div v-for="(lane, n) in lanes" :key="n" class="row beds" aria-hidden="true">
        <div
          v-for="placed in lane"
          :key="placed.bed.id"
          class="block bed"
          :style="box(placed)"
          :title="nameOf(placed.bed.fileId)"
        >
          <MixWave
            :waveform="waveforms[placed.bed.fileId] ?? null"
            :stretches="turnsOf(placed.bed, lengthOf(placed.bed.fileId))"
          />
          <span class="name one-line small">{{ nameOf(placed.bed.fileId) }}</span>
        </div>
      </div>
      <div class="playhead" :style="{ left: `${percent(atMs)}%` }" />
    </div>
  </div>
</template>

<style scoped>
.lanes-box {
  padding: var(--space-2) var(--space-3);
}
.lanes {
  position: relative;
  display: grid;
  gap: 3px;
  cursor: pointer;
}
.playhead {
  position: absolute;
  inset-block: 0;
  width: 2px;
  margin-left: -1px;
  background: var(--ink);
  pointer-events: none;
}
.ticks {
  position: relative;
  height: 24px;
}
.ticks span {
  position: absolute;
  padding-inline-start: 4px;
  border-inline-start: 1px solid var(--edge-strong);
}
.row {
  position: relative;
  height: 46px;
}
.beds {
  height: 34px;
}
.block {
  position: absolute;
  inset-block: 0;
  overflow: hidden;
  min-width: 3px;
  border: 1px solid var(--accent);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--accent);
}
.bed {
  border-style: dashed;
  color: var(--ink-soft);
  border-color: var(--ink-soft);
}
.name {
  position: absolute;
  inset-inline-start: 3px;
  top: 0;
  max-width: calc(100% - 6px);
  padding-inline: 3px;
  border-radius: 3px;
  background: color-mix(in srgb, var(--sheet) 82%, transparent);
  color: var(--ink);
}
</style>
