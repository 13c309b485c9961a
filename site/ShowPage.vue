<script setup lang="ts">
import { artworkAt } from '@core/show/artwork'
import { clock } from '@core/words/amounts'
import FeedAddress from './FeedAddress.vue'
import type { PublicEpisode, PublicShow } from './facts'
import { releaseDay } from './words'

defineProps<{ show: PublicShow; episodes: readonly PublicEpisode[] }>()
</script>

<template>
  <header class="masthead">
    <div class="column masthead-row">
      <img
        class="artwork"
        :src="artworkAt(show.artworkAddress, 480)"
        :alt="`Artwork of ${show.name}`"
        width="200"
        height="200"
      />
      <div>
        <h1>{{ show.name }}</h1>
        <p class="by">by {{ show.author }}</p>
        <p class="lead">{{ show.description }}</p>
      </div>
    </div>
    <div class="shore" aria-hidden="true" />
  </header>
  <main class="column">
    <FeedAddress :address="show.feedAddress" :elsewhere="show.subscribe" />
    <h2 class="section">Episodes</h2>
    <p v-if="episodes.length === 0" class="quiet">Nothing has been released yet.</p>
    <ol v-else class="episodes">
      <li v-for="episode in episodes" :key="episode.pageAddress">
        <a class="episode-title" :href="episode.pageAddress">{{ episode.title }}</a>
        <p class="meta">
          <span v-if="episode.number">No. {{ episode.number }}</span>
          <time :datetime="episode.releasedAt!">{{ releaseDay(episode.releasedAt!, show) }}</time>
          <span class="figures">{{ clock(episode.sound!.durationMs) }}</span>
        </p>
        <p v-if="episode.summary" class="summary">{{ episode.summary }}</p>
      </li>
    </ol>
  </main>
</template>
