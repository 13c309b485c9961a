<script setup lang="ts">
import { computed } from 'vue'
import type { AudioFile } from '@contract/episodes'
import { amount, clock } from '@core/words/amounts'

/** What the machine found out about a file; nobody types any of it. */
const props = defineProps<{ audio: AudioFile; showSlug: string }>()
const emit = defineEmits<{ replace: [] }>()

const format = computed(() => {
  const { codec, bitRateBps, sampleRateHz, channels } = props.audio
  const name = codec === 'mp3' ? 'MP3' : `M4A (${codec.toUpperCase()})`
  return `${name}, ${Math.round(bitRateBps / 1000)} kbit/s, ${sampleRateHz / 1000} kHz, ${channels === 1 ? 'mono' : channels === 2 ? 'stereo' : `${channels} channels`}`
})
const tags = computed(() => {
  const { title, artist, album, track, year } = props.audio.tags
  return [title && `title “${title}”`, artist && `artist ${artist}`, album && `album ${album}`, track && `track ${track}`, year && String(year)].filter(Boolean).join(', ') || 'none'
})
</script>

<template>
  <div class="facts small">
    <img v-if="audio.pictureAddress" :src="audio.pictureAddress" alt="Picture in the file" width="40" height="40">
    <div>
      <p><span class="name">{{ audio.name }}</span> <span class="figures">· {{ clock(audio.durationMs) }} · {{ amount(audio.bytes) }} · {{ format }}</span></p>
      <p class="quiet">Tags in the file: {{ tags }}</p>
      <p v-if="audio.alsoIn.length">
        The same sound is used by
        <template v-for="(other, index) in audio.alsoIn" :key="other.id"><template v-if="index">, </template><RouterLink :to="{ name: 'desk', params: { show: showSlug, id: other.id } }">{{ other.number ? `${other.number} ` : '' }}{{ other.title || 'an untitled episode' }}</RouterLink></template>. It is kept once.
      </p>
    </div>
    <button type="button" class="link-button" @click="emit('replace')">Take another file</button>
  </div>
</template>

<style scoped>
.facts { display: flex; gap: var(--space-3); align-items: flex-start; }
.facts div { flex: 1; min-width: 0; }
.facts img { border-radius: 3px; }
.name { font-weight: 600; overflow-wrap: anywhere; }
</style>
