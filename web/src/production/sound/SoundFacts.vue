<script setup lang="ts">
import { computed } from 'vue'
import type { AudioFile, Sound } from '@contract/sound'
import { amount, clock } from '@core/words/amounts'
import { formatOf } from '../files/words'

/** What the machine found out about a file; nobody types any of it. */
const props = defineProps<{ audio: AudioFile; alsoIn: Sound['alsoIn']; showSlug: string }>()
const emit = defineEmits<{ replace: [] }>()

const tags = computed(() => {
  const { title, artist, album, track, year } = props.audio.tags
  return (
    [
      title && `title “${title}”`,
      artist && `artist ${artist}`,
      album && `album ${album}`,
      track && `track ${track}`,
      year && String(year),
    ]
      .filter(Boolean)
      .join(', ') || 'none'
  )
})
</script>

<template>
  <div class="facts small flex gap-3 items-start">
    <img v-if="audio.pictureAddress" :src="audio.pictureAddress" alt="Picture in the file" width="40" height="40" />
    <div class="flex-1 min-w-0">
      <p>
        <span class="name font-semibold wrap-anywhere">{{ audio.name }}</span>{{ ' ' }}
        <span class="figures">· {{ clock(audio.durationMs) }} · {{ amount(audio.bytes) }} · {{ formatOf(audio) }}</span>
      </p>
      <p v-if="!audio.address" class="quiet">Tags in the file: {{ tags }}</p>
      <p v-if="audio.chapters.length" class="quiet">
        Chapters in the file:
        <template v-for="(chapter, index) in audio.chapters.slice(0, 6)" :key="chapter.fromMs"
          ><template v-if="index">, </template><span class="figures">{{ clock(chapter.fromMs) }}</span>
          {{ chapter.title }}</template
        ><template v-if="audio.chapters.length > 6"> and {{ audio.chapters.length - 6 }} more</template>
      </p>
      <p v-if="alsoIn.length">
        The same sound is used by
        <template v-for="(other, index) in alsoIn" :key="other.id"
          ><template v-if="index">, </template
          ><RouterLink :to="{ name: 'desk', params: { show: showSlug, id: other.id } }"
            >{{ other.number ? `${other.number} ` : '' }}{{ other.title || 'an untitled episode' }}</RouterLink
          ></template
        >. It is kept once.
      </p>
    </div>
    <button type="button" class="small-button" @click="emit('replace')">Replace file</button>
  </div>
</template>

<style scoped>
.facts img {
  border-radius: 3px;
}
</style>
