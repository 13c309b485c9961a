<script setup lang="ts">
import { artworkAt } from '@core/show/artwork'
import { amount, clock } from '@core/words/amounts'
import FeedAddress from './FeedAddress.vue'
import type { PublicEpisode, PublicShow } from './pages'
import { releaseDay } from './words'

defineProps<{ show: PublicShow; episode: PublicEpisode }>()
</script>

<template>
  <header class="masthead small">
    <div class="column masthead-row">
      <img class="artwork" :src="artworkAt(show.artworkAddress, 160)" alt="" width="64" height="64" />
      <a class="show-name" :href="show.pageAddress">{{ show.name }}</a>
    </div>
    <div class="shore" aria-hidden="true" />
  </header>
  <main class="column">
    <article>
      <h1>{{ episode.title }}</h1>
      <p class="meta">
        <span v-if="episode.number">No. {{ episode.number }}</span>
        <time :datetime="episode.releasedAt">{{ releaseDay(episode.releasedAt, show) }}</time>
        <span class="figures">{{ clock(episode.durationMs) }}</span>
      </p>
      <div class="player" data-player :data-duration-ms="episode.durationMs">
        <audio controls preload="none" :src="episode.soundAddress" />
      </div>
      <!-- eslint-disable-next-line vue/no-v-html -- cleaned by core/notes before it was kept -->
      <div class="notes" v-html="episode.notesHtml" />
      <p class="quiet"><a :href="episode.soundAddress" download>Download the sound</a> ({{ amount(episode.bytes) }})</p>
    </article>
    <FeedAddress :address="show.feedAddress" />
  </main>
</template>
