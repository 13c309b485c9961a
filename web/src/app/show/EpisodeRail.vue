<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import type { EpisodePage, EpisodesNear } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { type Status, statuses } from '@core/release/status'
import EpisodeRow from './EpisodeRow.vue'
import { useShows } from '../../show/shows/shows'
import { useNow } from '../../platform/time/now'
import { timeOfDay } from '../../platform/time/times'

/** A show's episodes along the waterline: to come above it, gone out below. What is far from now is found by its words. */
const props = defineProps<{ show: Show; near: EpisodesNear }>()
const emit = defineEmits<{ more: [status: Status] }>()
const shows = useShows()
const now = useNow()

const left = (status: Status): number => props.near[status].total - props.near[status].episodes.length
/** The newest drafts, then what is planned, the next one last. */
const planned = computed(() => props.near.scheduled.episodes.toReversed())
const goneOut = computed(() => [...props.near.released.episodes, ...props.near.retired.episodes])
const isMore = computed(() => statuses.some(status => left(status) > 0))

const words = ref('')
const found = ref<EpisodePage | null>(null)
const isLooking = computed(() => words.value.trim() !== '')

async function find(): Promise<void> {
  const asked = words.value
  const page = isLooking.value ? await shows.findEpisodes(asked.trim()) : null
  if (asked === words.value) found.value = page
}
watchDebounced(words, find, { debounce: 150 })
// What is found changes with what is near.
watch(
  () => props.near,
  () => {
    if (isLooking.value) void find()
  },
)
</script>

<template>
  <nav class="flex flex-col min-h-0 flex-1 overflow-y-auto" aria-label="Episodes">
    <InputText
      v-if="isMore || isLooking"
      v-model="words"
      class="find"
      size="small"
      type="search"
      placeholder="Find an episode"
      aria-label="Find an episode by words of its title or its number"
    />
    <div v-if="isLooking" class="found min-h-0" aria-live="polite">
      <p v-if="found" class="small quiet px-4 py-3">
        {{
          found.total === 0
            ? 'No episodes match.'
            : found.total === 1
              ? 'One episode'
              : found.after
                ? `The first ${found.episodes.length} of ${found.total}`
                : `${found.total} episodes`
        }}
      </p>
      <ul v-if="found" class="list-none m-0 px-2 py-0" aria-label="Found">
        <EpisodeRow v-for="episode in found.episodes" :key="episode.id" :episode="episode" :show="show" />
      </ul>
    </div>
    <template v-else>
      <ul
        v-if="near.draft.episodes.length || planned.length"
        class="above list-none m-0 px-2 py-0"
        aria-label="Upcoming"
      >
        <EpisodeRow v-for="episode in near.draft.episodes" :key="episode.id" :episode="episode" :show="show" />
        <li v-if="left('draft')">
          <button type="button" class="small-button more m-2" @click="emit('more', 'draft')">
            Show more of {{ left('draft') }} other drafts
          </button>
        </li>
        <li v-if="left('scheduled')">
          <button type="button" class="small-button more m-2" @click="emit('more', 'scheduled')">
            Show more of {{ left('scheduled') }} planned later
          </button>
        </li>
        <EpisodeRow v-for="episode in planned" :key="episode.id" :episode="episode" :show="show" />
      </ul>
      <p v-else class="small quiet px-4 py-3">Nothing upcoming. Drop an audio file anywhere, or begin a new episode.</p>
      <div class="quiet mt-2 pt-1">
        <span class="small pl-4"
          >Now, <time>{{ timeOfDay(now, show.zone) }}</time> in {{ show.zone }}</span
        >
        <div class="surface" aria-hidden="true" />
      </div>
      <div class="below">
        <ul v-if="goneOut.length" class="list-none m-0 px-2 py-0" aria-label="Released">
          <EpisodeRow v-for="episode in near.released.episodes" :key="episode.id" :episode="episode" :show="show" />
          <li v-if="left('released')">
            <button type="button" class="small-button more m-2" @click="emit('more', 'released')">
              Show more of {{ left('released') }} earlier ones
            </button>
          </li>
          <EpisodeRow v-for="episode in near.retired.episodes" :key="episode.id" :episode="episode" :show="show" />
          <li v-if="left('retired')">
            <button type="button" class="small-button more m-2" @click="emit('more', 'retired')">
              Show more of {{ left('retired') }} other retired ones
            </button>
          </li>
        </ul>
        <p v-if="!goneOut.length" class="small quiet px-4 py-3">
          No releases yet. Released episodes appear here, newest first.
        </p>
      </div>
    </template>
  </nav>
</template>

<style scoped>
.find {
  margin: var(--space-1) var(--space-4) var(--space-2);
  flex: none;
}
.surface {
  height: 12px;
  margin-bottom: -1px;
  background: var(--deep);
  mask: url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='64' height='12'%3E%3Cpath d='M0 6Q16 0 32 6T64 6V12H0Z'/%3E%3C/svg%3E")
    repeat-x;
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
