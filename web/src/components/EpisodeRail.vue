<script setup lang="ts">
import { computed } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import type { Show } from '@contract/shows'
import EpisodeRow from './EpisodeRow.vue'
import { useNow } from '../desk/now'
import { timeOfDay } from '../desk/times'

/** A show's episodes along the waterline: to come above it, gone out below. */
const props = defineProps<{ show: Show; episodes: readonly EpisodeSummary[] }>()
const now = useNow()
const toCome = computed(() => props.episodes.filter(({ standing }) => standing === 'draft' || standing === 'scheduled'))
const goneOut = computed(() => props.episodes.filter(({ standing }) => standing === 'released' || standing === 'retired'))
</script>

<template>
  <nav class="rail-list" aria-label="Episodes">
    <ul v-if="toCome.length" class="above" aria-label="To come">
      <EpisodeRow v-for="episode in toCome" :key="episode.id" :episode="episode" :show="show" />
    </ul>
    <p v-else class="nothing small">Nothing to come. Drop an audio file anywhere, or begin a new episode.</p>
    <div class="waterline">
      <span class="small">Now, <time>{{ timeOfDay(now, show.zone) }}</time> in {{ show.zone }}</span>
      <div class="surface" aria-hidden="true" />
    </div>
    <div class="below">
      <ul v-if="goneOut.length" aria-label="Gone out">
        <EpisodeRow v-for="episode in goneOut" :key="episode.id" :episode="episode" :show="show" />
      </ul>
      <p v-else class="nothing small">Nothing has gone out yet. Released episodes lie here, the newest on top.</p>
    </div>
  </nav>
</template>

<style scoped>
.rail-list { display: flex; flex-direction: column; min-height: 0; flex: 1; overflow-y: auto; }
ul { list-style: none; margin: 0; padding: 0 var(--space-2); }
.nothing { padding: var(--space-3) var(--space-4); color: var(--ink-soft); }
.waterline { margin-top: var(--space-2); padding-top: var(--space-1); color: var(--ink-soft); }
.waterline span { padding-left: var(--space-4); }
.surface {
  height: 12px;
  margin-bottom: -1px;
  background: var(--deep);
  mask: url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='64' height='12'%3E%3Cpath d='M0 6Q16 0 32 6T64 6V12H0Z'/%3E%3C/svg%3E") repeat-x;
}
.below {
  --ink: var(--on-deep);
  --ink-soft: var(--on-deep-soft);
  --accent-wash: var(--deep-lit);
  --sheet: var(--deep-lit);
  --accent: var(--on-deep);
  flex: 1;
  padding-block: var(--space-2) var(--space-4);
  background: var(--deep);
  color: var(--on-deep);
}
</style>
