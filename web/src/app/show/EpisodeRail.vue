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
import { FormattedMessage, t } from './messages'

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
  <nav class="flex flex-col min-h-0 flex-1 overflow-y-auto" :aria-label="t('episodes')">
    <InputText
      v-if="isMore || isLooking"
      v-model="words"
      class="find"
      size="small"
      type="search"
      :placeholder="t('findAnEpisode')"
      :aria-label="t('findEpisodeHint')"
    />
    <div v-if="isLooking" class="found min-h-0" aria-live="polite">
      <p v-if="found" class="small quiet px-4 py-3">
        {{
          found.total === 0
            ? t('noEpisodesMatch')
            : found.after
              ? t('firstOfFound', { count: found.episodes.length, total: found.total })
              : t('countFound', { count: found.total })
        }}
      </p>
      <ul v-if="found" class="list-none m-0 px-2 py-0" :aria-label="t('found')">
        <EpisodeRow v-for="episode in found.episodes" :key="episode.id" :episode="episode" :show="show" />
      </ul>
    </div>
    <template v-else>
      <ul
        v-if="near.draft.episodes.length || planned.length"
        class="above list-none m-0 px-2 py-0"
        :aria-label="t('upcoming')"
      >
        <EpisodeRow v-for="episode in near.draft.episodes" :key="episode.id" :episode="episode" :show="show" />
        <li v-if="left('draft')">
          <button type="button" class="small-button more m-2" @click="emit('more', 'draft')">
            {{ t('moreDrafts', { count: left('draft') }) }}
          </button>
        </li>
        <li v-if="left('scheduled')">
          <button type="button" class="small-button more m-2" @click="emit('more', 'scheduled')">
            {{ t('morePlanned', { count: left('scheduled') }) }}
          </button>
        </li>
        <EpisodeRow v-for="episode in planned" :key="episode.id" :episode="episode" :show="show" />
      </ul>
      <p v-else class="small quiet px-4 py-3">{{ t('nothingUpcoming') }}</p>
      <div class="quiet mt-2 pt-1">
        <span class="small pl-4"
          ><FormattedMessage of="nowInZone" :values="{ time: timeOfDay(now, show.zone), zone: show.zone }"
            ><template #clock="{ words }"
              ><time>{{ words }}</time></template
            ></FormattedMessage
          ></span
        >
        <div class="surface" aria-hidden="true" />
      </div>
      <div class="below">
        <ul v-if="goneOut.length" class="list-none m-0 px-2 py-0" :aria-label="t('released')">
          <EpisodeRow v-for="episode in near.released.episodes" :key="episode.id" :episode="episode" :show="show" />
          <li v-if="left('released')">
            <button type="button" class="small-button more m-2" @click="emit('more', 'released')">
              {{ t('moreReleased', { count: left('released') }) }}
            </button>
          </li>
          <EpisodeRow v-for="episode in near.retired.episodes" :key="episode.id" :episode="episode" :show="show" />
          <li v-if="left('retired')">
            <button type="button" class="small-button more m-2" @click="emit('more', 'retired')">
              {{ t('moreRetired', { count: left('retired') }) }}
            </button>
          </li>
        </ul>
        <p v-if="!goneOut.length" class="small quiet px-4 py-3">
          {{ t('noReleases') }}
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
