<script setup lang="ts">
import Button from 'primevue/button'
import WaveSurfer from 'wavesurfer.js'
import { onMounted, onUnmounted, ref } from 'vue'
import type { AudioFile } from '@contract/episodes'
import { clock } from '@core/words/amounts'
import { api } from '../api'

/** Plays a file of the studio; a press on its waveform, or the arrow keys, seek in it. */
const props = defineProps<{ audio: AudioFile }>()
const canvas = ref<HTMLElement>()
const playing = ref(false)
const atMs = ref(0)
const unreachable = ref(false)
const sound = new Audio()
let waves: WaveSurfer | null = null

const token = (name: string): string => {
  const probe = document.createElement('span')
  probe.style.color = `var(${name})`
  canvas.value!.append(probe)
  const { color } = getComputedStyle(probe)
  probe.remove()
  return color
}

onMounted(async () => {
  sound.preload = 'metadata'
  sound.src = props.audio.playAddress
  sound.addEventListener('timeupdate', () => { atMs.value = sound.currentTime * 1000 })
  sound.addEventListener('play', () => { playing.value = true })
  sound.addEventListener('pause', () => { playing.value = false })
  sound.addEventListener('error', () => { unreachable.value = true })
  const form = await api.waveform(props.audio.waveformAddress)
  if (!canvas.value) return
  waves = WaveSurfer.create({
    container: canvas.value,
    media: sound,
    peaks: [Array.from(form, value => value / 127)],
    duration: props.audio.durationMs / 1000,
    height: 72,
    normalize: false,
    waveColor: token('--edge-strong'),
    progressColor: token('--accent'),
    cursorColor: token('--ink'),
    cursorWidth: 2,
  })
})
onUnmounted(() => {
  sound.pause()
  sound.removeAttribute('src')
  waves?.destroy()
})

function seekTo(seconds: number): void {
  sound.currentTime = Math.min(Math.max(seconds, 0), props.audio.durationMs / 1000)
  atMs.value = sound.currentTime * 1000
}

const steps: Readonly<Record<string, number>> = { ArrowLeft: -5, ArrowDown: -5, ArrowRight: 5, ArrowUp: 5, PageDown: -60, PageUp: 60, Home: -Infinity, End: Infinity }
function key(event: KeyboardEvent): void {
  const step = steps[event.key]
  if (step === undefined) return
  event.preventDefault()
  seekTo(sound.currentTime + step)
}
</script>

<template>
  <div class="player">
    <Button type="button" class="play" :label="playing ? 'Pause' : 'Play'" outlined @click="playing ? sound.pause() : sound.play()" />
    <div
      ref="canvas" class="wave" role="slider" tabindex="0" aria-label="Place in the audio" aria-valuemin="0"
      :aria-valuemax="Math.round(audio.durationMs / 1000)" :aria-valuenow="Math.round(atMs / 1000)" :aria-valuetext="`${clock(atMs)} of ${clock(audio.durationMs)}`" @keydown="key"
    />
    <span class="figures time" data-testid="place">{{ clock(atMs) }}<br>{{ clock(audio.durationMs) }}</span>
    <span v-if="unreachable" class="fault">The sound cannot be reached at the moment.</span>
  </div>
</template>

<style scoped>
.player { display: grid; grid-template-columns: auto minmax(0, 1fr) auto; gap: var(--space-3); align-items: center; padding: var(--space-3) var(--space-4); background: var(--sheet); border: 1px solid var(--edge); border-radius: var(--round); }
.play { min-width: 5.2rem; }
.wave { min-height: 72px; border-radius: var(--round); cursor: pointer; }
.time { text-align: right; font-size: var(--text-s); line-height: 1.4; color: var(--ink-soft); }
.fault { grid-column: 1 / -1; }
</style>
