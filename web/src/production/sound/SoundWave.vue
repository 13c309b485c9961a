<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { columnsOf, curveOf, type Pyramid } from '@core/audio/pyramid'
import type { Stretch } from '@core/audio/measurement'
import { useTheme } from '../../platform/theme/theme'
import { clock, signed } from '@core/words/amounts'
import { movedByKey } from './position'
import { t } from './messages'

/** A waveform with what there is to say about its places: silence hatched, clipped places marked, what is cut off veiled. */
const props = defineProps<{
  waveform: Pyramid | null
  durationMs: number
  atMs: number
  label: string
  /** The stretch that is drawn. */
  fromMs: number
  toMs: number
  silences: readonly Stretch[]
  marks: readonly Stretch[]
  /** Kept when it is trimmed; null where nothing is cut. */
  kept: Stretch | null
  /** A level across the loudness curve that is drawn behind the waveform. */
  targetLufs: number
  lower?: boolean
}>()
const emit = defineEmits<{ seek: [ms: number]; mark: [place: Stretch] }>()
const canvas = ref<HTMLCanvasElement>()

const percent = (ms: number): number => ((ms - props.fromMs) / (props.toMs - props.fromMs)) * 100
const box = ({ fromMs, toMs }: Stretch) => ({
  left: `${Math.max(0, percent(fromMs))}%`,
  right: `${Math.max(0, 100 - percent(toMs))}%`,
})
const inView = ({ fromMs, toMs }: Stretch): boolean => toMs >= props.fromMs && fromMs <= props.toMs
const shownSilences = computed(() => props.silences.filter(inView))
const shownMarks = computed(() => props.marks.filter(inView))
const cut = computed(() =>
  props.kept
    ? [
        { fromMs: 0, toMs: props.kept.fromMs },
        { fromMs: props.kept.toMs, toMs: props.durationMs },
      ].filter(part => part.toMs > part.fromMs && inView(part))
    : [],
)

/** The curve stands on the bottom, its top at this loudness and its foot so much lower. */
const [topLufs, spanLu] = [-4, 36]
const levelOf = (lufs: number): number => Math.min(1, Math.max(0, (topLufs - lufs) / spanLu))

/** How loud it sounds, second by second, as a hill behind the waveform, and the target as a line over it. */
function drawCurve(pen: CanvasRenderingContext2D, { width, height }: HTMLCanvasElement, colours: CSSStyleDeclaration) {
  const points = props.waveform ? curveOf(props.waveform, props.fromMs, props.toMs) : []
  if (points.length === 0) return
  const x = (ms: number): number => (percent(ms) / 100) * width
  const y = (lufs: number): number => levelOf(lufs) * height
  const ends = [Math.max(0, props.fromMs), Math.min(props.durationMs, props.toMs)].map(x) as [number, number]
  pen.beginPath()
  pen.moveTo(ends[0], height)
  pen.lineTo(ends[0], y(points[0]!.lufs))
  for (const { atMs, lufs } of points) pen.lineTo(x(atMs), y(lufs))
  pen.lineTo(ends[1], y(points.at(-1)!.lufs))
  pen.lineTo(ends[1], height)
  pen.fillStyle = colours.borderRightColor
  pen.fill()
  pen.setLineDash([4 * window.devicePixelRatio, 4 * window.devicePixelRatio])
  pen.strokeStyle = colours.borderBottomColor
  pen.lineWidth = window.devicePixelRatio
  pen.beginPath()
  pen.moveTo(0, y(props.targetLufs))
  pen.lineTo(width, y(props.targetLufs))
  pen.stroke()
}

function draw(): void {
  const element = canvas.value
  if (!element) return
  const { width, height } = element.getBoundingClientRect()
  const density = window.devicePixelRatio
  element.width = Math.max(1, Math.round(width * density))
  element.height = Math.max(1, Math.round(height * density))
  const pen = element.getContext('2d')!
  const styles = getComputedStyle(element)
  const [before, after] = [styles.color, styles.borderTopColor]
  drawCurve(pen, element, styles)
  const middle = element.height / 2
  // Without a waveform a plain line shows the place.
  const columns = props.waveform
    ? columnsOf(props.waveform, props.fromMs, props.toMs, element.width)
    : new Int8Array(element.width * 2)
  const playedTo = (percent(props.atMs) / 100) * element.width
  for (let x = 0; x < element.width; x++) {
    pen.fillStyle = x <= playedTo ? before : after
    const top = middle - (columns[x * 2 + 1]! / 127) * middle
    const bottom = middle - (columns[x * 2]! / 127) * middle
    pen.fillRect(x, top, 1, Math.max(density, bottom - top))
  }
}

useResizeObserver(canvas, draw)
const look = useTheme()
watch(() => look.isDark, draw, { flush: 'post' })
watch(() => [props.waveform, props.fromMs, props.toMs, props.atMs, props.targetLufs], draw)

function press(event: MouseEvent): void {
  const { left, width } = canvas.value!.getBoundingClientRect()
  emit('seek', props.fromMs + ((event.clientX - left) / width) * (props.toMs - props.fromMs))
}

function key(event: KeyboardEvent): void {
  const to = movedByKey(event, props.atMs, props.durationMs)
  if (to !== undefined) emit('seek', to)
}
</script>

<template>
  <div class="wave" :class="{ lower }">
    <div
      class="line"
      role="slider"
      tabindex="0"
      :aria-label="label"
      aria-valuemin="0"
      :aria-valuemax="Math.round(durationMs / 1000)"
      :aria-valuenow="Math.round(atMs / 1000)"
      :aria-valuetext="t('positionOf', { time: clock(atMs), length: clock(durationMs) })"
      :title="t('loudnessLegend', { lufs: signed(targetLufs) })"
      @click="press"
      @keydown="key"
    >
      <canvas ref="canvas" aria-hidden="true" />
      <div
        v-for="(part, index) in shownSilences"
        :key="`s${index}`"
        class="silence"
        :style="box(part)"
        :title="t('silence')"
      />
      <div
        v-for="(part, index) in cut"
        :key="`c${index}`"
        class="cut"
        :style="box(part)"
        :title="t('trimmedWhenFinished')"
      />
      <div v-if="atMs >= fromMs && atMs <= toMs" class="place" :style="{ left: `${percent(atMs)}%` }" />
    </div>
    <button
      v-for="(place, index) in shownMarks"
      :key="`m${index}`"
      type="button"
      class="mark bare-button"
      :style="{ left: `${percent(place.fromMs)}%` }"
      :title="t('clippedAt', { time: clock(place.fromMs) })"
      :aria-label="t('hearClippedAt', { time: clock(place.fromMs) })"
      @click="emit('mark', place)"
    />
    <slot />
  </div>
</template>

<style scoped>
.wave {
  position: relative;
  height: 72px;
}
.wave.lower {
  height: 44px;
}
.line {
  position: absolute;
  inset: 0;
  cursor: pointer;
  border-radius: var(--round);
  overflow: hidden;
}
canvas {
  width: 100%;
  height: 100%;
  display: block;
  /* Colours that are read where it is drawn: played and to be played, then the curve and the target. */
  color: var(--accent);
  border: 0 solid;
  border-color: var(--edge-strong) var(--curve) var(--ink-soft);
}
.silence {
  position: absolute;
  inset-block: 0;
  background: repeating-linear-gradient(135deg, transparent 0 5px, var(--edge) 5px 7px);
  pointer-events: none;
}
.cut {
  position: absolute;
  inset-block: 0;
  background: color-mix(in srgb, var(--sheet) 78%, transparent);
  pointer-events: none;
}
.place {
  position: absolute;
  inset-block: 0;
  width: 2px;
  margin-left: -1px;
  background: var(--ink);
  pointer-events: none;
}
.mark {
  position: absolute;
  top: -4px;
  width: 24px;
  height: 24px;
  margin-left: -12px;
}
.mark::before {
  content: '';
  position: absolute;
  left: 8px;
  top: 0;
  border: 4px solid transparent;
  border-top: 9px solid var(--signal);
}
</style>
