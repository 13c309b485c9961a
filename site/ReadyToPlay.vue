<script setup lang="ts">
import SoundPlayer from './SoundPlayer.vue'
import type { EpisodeLine, PublicShow } from './facts'
import { releaseDay } from './words'

/** An episode that plays at a press, where its page need not be opened. */
defineProps<{ show: PublicShow; episode: EpisodeLine; words: string }>()
</script>

<template>
  <section class="ready">
    <p class="kicker">{{ words }}</p>
    <h2>
      <a class="episode-title" :href="episode.pageAddress">{{ episode.title }}</a>
    </h2>
    <p class="meta">
      <span v-if="episode.number">No. {{ episode.number }}</span>
      <time :datetime="episode.releasedAt">{{ releaseDay(episode.releasedAt, show) }}</time>
    </p>
    <p v-if="episode.summary" class="summary">{{ episode.summary }}</p>
    <SoundPlayer
      :sound="episode.sound"
      :title="episode.title"
      :show="show.name"
      :picture="episode.artworkAddress ?? show.artworkAddress"
      :page-address="episode.pageAddress"
    />
  </section>
</template>
