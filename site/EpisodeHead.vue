<script setup lang="ts">
import type { EpisodeLine, PublicShow } from './facts'
import { releaseDay } from './words'
import { useMessages } from './useMessages'

/** What an episode is called, and when it went out. */
defineProps<{ show: PublicShow; episode: EpisodeLine }>()
const { t } = useMessages()
</script>

<template>
  <h2>
    <a class="episode-title" :href="episode.pageAddress">{{ episode.title }}</a>
  </h2>
  <p class="meta">
    <span v-if="episode.number">{{ t('number', { number: episode.number }) }}</span>
    <time :datetime="episode.releasedAt">{{ releaseDay(episode.releasedAt, show) }}</time>
  </p>
</template>
