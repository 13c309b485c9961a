<script setup lang="ts">
import { computed, ref } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import type { Show } from '@contract/shows'
import EpisodeRow from './EpisodeRow.vue'
import { useNow } from '../desk/now'
import { timeOfDay } from '../desk/times'

/** A show's episodes along the waterline: to come above it, gone out below. */
const props = defineProps<{ show: Show; episodes: readonly EpisodeSummary[] }>()
const now = useNow()

/** So many are shown on either side of the waterline at first: what is near now. */
const mostNear = 40
const isAllShown = ref({ toCome: false, goneOut: false })
const allToCome = computed(() => props.episodes.filter(({ standing }) => standing === 'draft' || standing === 'scheduled'))
const allGoneOut = computed(() => props.episodes.filter(({ standing }) => standing === 'released' || standing === 'retired'))
/** The newest drafts, which stand first, and what goes out next, which stands last. */
const toCome = computed(() => isAllShown.value.toCome || allToCome.value.length <= mostNear ? allToCome.value : [...allToCome.value.slice(0, mostNear / 2), ...allToCome.value.slice(-mostNear / 2)])
const goneOut = computed(() => isAllShown.value.goneOut ? allGoneOut.value : allGoneOut.value.slice(0, mostNear))
</script>

<template>
  <nav class="rail-list" aria-label="Episodes">
    <button v-if="toCome.length < allToCome.length" type="button" class="link-button small more" @click="isAllShown.toCome = true">Show {{ allToCome.length - toCome.length }} more to come</button>
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
      <button v-if="goneOut.length < allGoneOut.length" type="button" class="link-button small more" @click="isAllShown.goneOut = true">Show {{ allGoneOut.length - goneOut.length }} earlier ones</button>
      <p v-if="!goneOut.length" class="nothing small">Nothing has gone out yet. Released episodes lie here, the newest on top.</p>
    </div>
  </nav>
</template>

<style scoped>
.rail-list { display: flex; flex-direction: column; min-height: 0; flex: 1; overflow-y: auto; }
ul { list-style: none; margin: 0; padding: 0 var(--space-2); }
.nothing { padding: var(--space-3) var(--space-4); color: var(--ink-soft); }
.more { margin: var(--space-2) var(--space-4); }
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
