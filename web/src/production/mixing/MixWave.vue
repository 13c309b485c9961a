<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { ref, watch } from 'vue'
import type { Stretch } from '@core/audio/measurement'
import { columnsOf, type Pyramid } from '@core/audio/pyramid'
import { useTheme } from '../../platform/theme/theme'

/** The waveform of what is heard of a file, stretch after stretch. */
const props = defineProps<{ waveform: Pyramid | null; stretches: readonly Stretch[] }>()
const canvas = ref<HTMLCanvasElement>()

function draw(): void {
  const element = canvas.value
  if (!element) return
  const { width, height } = element.getBoundingClientRect()
  element.width = Math.max(1, Math.round(width * window.devicePixelRatio))
  element.height = Math.max(1, Math.round(height * window.devicePixelRatio))
  if (!props.waveform) return
  const pen = element.getContext('2d')!
  pen.fillStyle = getComputedStyle(element).color
  const wholeMs = props.stretches.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0)
  const middle = element.height / 2
  let doneMs = 0
  for (const { fromMs, toMs } of props.stretches) {
    const at = Math.round((doneMs / wholeMs) * element.width)
    doneMs += toMs - fromMs
    const columns = Math.round((doneMs / wholeMs) * element.width) - at
    if (columns < 1) continue
    const drawn = columnsOf(props.waveform, fromMs, toMs, columns)
    for (let x = 0; x < columns; x++) {
      const top = middle - (drawn[x * 2 + 1]! / 127) * middle
      pen.fillRect(at + x, top, 1, Math.max(1, middle - (drawn[x * 2]! / 127) * middle - top))
    }
  }
}
useResizeObserver(canvas, draw)
const look = useTheme()
watch(() => look.isDark, draw, { flush: 'post' })
watch(() => [props.waveform, props.stretches], draw)
</script>

<template><canvas ref="canvas" aria-hidden="true" /></template>

<style scoped>
canvas {
  display: block;
  width: 100%;
  height: 100%;
}
</style>
