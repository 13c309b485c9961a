<script setup lang="ts">
import type { EpisodeLine, PublicShow } from './facts'
import { releaseDay } from './words'

/** What an episode is called, and when it went out. */
defineProps<{ show: PublicShow; episode: EpisodeLine }>()
</script>

<template>
  <h2>
    <a class="episode-title" :href="episode.pageAddress">{{ episode.title }}</a>
  </h2>
  <p class="meta">
    <span v-if="episode.number">No. {{ episode.number }}</span>
    <time :datetime="episode.releasedAt">{{ releaseDay(episode.releasedAt, show) }}</time>
  </p>
</template>
