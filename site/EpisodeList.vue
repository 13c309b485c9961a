<script setup lang="ts">
import { clock } from '@core/words/amounts'
import WebPicture from './WebPicture.vue'
import type { EpisodeLine, PublicShow } from './facts'
import { releaseDay } from './words'
import { useMessages } from './useMessages'

defineProps<{ show: PublicShow; episodes: readonly EpisodeLine[] }>()
const { t } = useMessages()
</script>

<template>
  <ol class="episodes">
    <li v-for="episode in episodes" :key="episode.pageAddress">
      <WebPicture
        v-if="episode.artworkAddress"
        class="artwork"
        :address="episode.artworkAddress"
        :width="72"
        :height="72"
        is-square
        is-lazy
      />
      <div>
        <a class="episode-title" :href="episode.pageAddress">{{ episode.title }}</a>
        <p class="meta">
          <span v-if="episode.number">{{ t('number', { number: episode.number }) }}</span>
          <time :datetime="episode.releasedAt">{{ releaseDay(episode.releasedAt, show) }}</time>
          <span class="figures">{{ clock(episode.sound.durationMs) }}</span>
        </p>
        <p v-if="episode.summary" class="summary">{{ episode.summary }}</p>
      </div>
    </li>
  </ol>
</template>
