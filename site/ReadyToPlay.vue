<script setup lang="ts">
import EpisodeHead from './EpisodeHead.vue'
import SoundPlayer from './SoundPlayer.vue'
import type { EpisodeLine, PublicShow } from './facts'
import { playerOf } from './words'

/** An episode that plays at a press, where its page need not be opened. */
defineProps<{ show: PublicShow; episode: EpisodeLine; words: string }>()
</script>

<template>
  <section class="ready">
    <p class="kicker">{{ words }}</p>
    <EpisodeHead :show="show" :episode="episode" />
    <p v-if="episode.summary" class="summary">{{ episode.summary }}</p>
    <SoundPlayer v-bind="playerOf(show, episode, episode.sound)" />
  </section>
</template>
