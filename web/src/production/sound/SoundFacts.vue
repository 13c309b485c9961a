<script setup lang="ts">
import { computed } from 'vue'
import type { AudioFile, Sound } from '@contract/sound'
import { amount, clock } from '@core/words/amounts'
import { formatOf } from '../files/words'
import { FormattedMessage, t } from './messages'

/** What the machine found out about a file; nobody types any of it. */
const props = defineProps<{ audio: AudioFile; alsoIn: Sound['alsoIn']; showSlug: string }>()
const emit = defineEmits<{ replace: [] }>()

const tags = computed(() => {
  const { title, artist, album, track, year } = props.audio.tags
  return (
    [
      title && t('titleTag', { title }),
      artist && t('artistTag', { artist }),
      album && t('albumTag', { album }),
      track && t('trackTag', { track }),
      year && String(year),
    ]
      .filter(Boolean)
      .join(', ') || 'none'
  )
})
</script>

<template>
  <div class="facts small flex gap-3 items-start">
    <img v-if="audio.pictureAddress" :src="audio.pictureAddress" :alt="t('pictureInTheFile')" width="40" height="40" />
    <div class="flex-1 min-w-0">
      <p>
        <template v-if="audio.origin === 'mix'">
          <span class="name font-semibold">{{ t('putTogetherHere') }}</span>{{ ' ' }}
          <span class="figures">· {{ clock(audio.durationMs) }}</span>
        </template>
        <template v-else>
          <span class="name font-semibold wrap-anywhere">{{ audio.name }}</span>{{ ' ' }}
          <span class="figures"
            >· {{ clock(audio.durationMs) }} · {{ amount(audio.bytes) }} · {{ formatOf(audio) }}</span
          >
        </template>
      </p>
      <p v-if="!audio.address && audio.origin !== 'mix'" class="quiet">{{ t('tagsInFile', { tags }) }}</p>
      <p v-if="audio.chapters.length" class="quiet">
        {{ t('chaptersInFile') }}
        <template v-for="(chapter, index) in audio.chapters.slice(0, 6)" :key="chapter.fromMs"
          ><template v-if="index">, </template><span class="figures">{{ clock(chapter.fromMs) }}</span>
          {{ chapter.title }}</template
        ><template v-if="audio.chapters.length > 6">
          {{ t('countMore', { count: audio.chapters.length - 6 }) }}</template
        >
      </p>
      <p v-if="alsoIn.length">
        <FormattedMessage of="sameSoundIn"
          ><template #episodes
            ><template v-for="(other, index) in alsoIn" :key="other.id"
              ><template v-if="index">, </template
              ><RouterLink :to="{ name: 'desk', params: { show: showSlug, id: other.id } }"
                >{{ other.number ? `${other.number} ` : '' }}{{ other.title || t('untitledInSentence') }}</RouterLink
              ></template
            ></template
          ></FormattedMessage
        >
      </p>
    </div>
    <button type="button" class="small-button" @click="emit('replace')">{{ t('replaceFile') }}</button>
  </div>
</template>

<style scoped>
.facts img {
  border-radius: 3px;
}
</style>
