<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import Button from 'primevue/button'
import Select from 'primevue/select'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { EpisodesNear } from '@contract/episodes'
import type { Show, ShowSummary } from '@contract/shows'
import { may } from '@core/access/roles'
import type { Status } from '@core/release/status'
import EpisodeRail from '../show/EpisodeRail.vue'
import ClockControl from '../clockOffset/ClockControl.vue'
import { useRail } from './rail'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import { useSession } from '../../people/account/session'
import { useShows } from '../../show/shows/shows'
import { t } from './messages'

/** The side of the studio: which show, its episodes, and what is the same everywhere. It folds to a strip. */
const props = defineProps<{ show: Show; near: EpisodesNear | null }>()
const emit = defineEmits<{ new: []; more: [status: Status] }>()
const router = useRouter()
const shows = useShows()
const sessions = useSession()
const rail = useRail()

/** The open show is among the choices, wherever it stands in the list. */
const choices = computed<ShowSummary[]>(() => {
  const listed = shows.list?.shows ?? []
  return listed.some(({ id }) => id === props.show.id) ? listed : [props.show, ...listed]
})
const find = useDebounceFn((words: string) => shows.loadList(words).catch(() => undefined), 200)
</script>

<template>
  <aside class="rail" :class="{ folded: rail.isFolded }">
    <button
      type="button"
      class="fold quiet"
      :aria-expanded="!rail.isFolded"
      :aria-label="rail.isFolded ? t('expandSidebar') : t('collapseSidebar')"
      :title="rail.isFolded ? t('expandSidebar') : t('collapseSidebar')"
      @click="rail.isFolded = !rail.isFolded"
    >
      <svg viewBox="0 0 12 12" aria-hidden="true">
        <path d="M8 2.5 4 6l4 3.5" fill="none" stroke="currentColor" stroke-width="1.4" />
      </svg>
    </button>
    <header>
      <Select
        v-if="(shows.list?.total ?? 0) > 1"
        class="switch"
        :aria-label="t('show')"
        :model-value="show.slug"
        :options="choices"
        option-label="name"
        option-value="slug"
        :filter="shows.list!.total > choices.length || choices.length > 12"
        @filter="({ value }) => find(value)"
        @hide="find('')"
        @update:model-value="slug => router.push({ name: 'show', params: { show: slug } })"
      />
      <RouterLink v-else class="show-name" :to="{ name: 'show', params: { show: show.slug } }">{{
        show.name
      }}</RouterLink>
      <Button v-if="may(show.role, 'write')" :label="t('newEpisode')" size="small" @click="emit('new')" />
    </header>
    <EpisodeRail v-if="near" :show="show" :near="near" @more="status => emit('more', status)" />
    <LoadingShape v-else class="flex-1 content-start p-4" :what="t('theEpisodes')" :lines="8" />
    <ClockControl v-if="sessions.session?.demo?.clockOffsetMs != null" class="clock" :zone="show.zone" />
  </aside>
</template>

<style scoped>
.rail {
  display: flex;
  flex-direction: column;
  width: 16.5rem;
  min-height: 0;
  border-right: 1px solid var(--edge);
}
.rail header {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-4);
}
/* The strip keeps a glyph and a number for each episode; what they are called is said by their tips and to screen readers. */
.fold {
  display: grid;
  place-items: center;
  align-self: flex-end;
  width: 2rem;
  height: 1.75rem;
  margin: var(--space-1) var(--space-2) calc(-1 * var(--space-2)) 0;
  border: 0;
  background: none;
  cursor: pointer;
}
.fold svg {
  width: 0.9rem;
}
@media (min-width: 901px) {
  .folded {
    width: 3.75rem;
  }
  .folded .fold {
    align-self: center;
    margin: var(--space-2) 0;
  }
  .folded .fold svg {
    transform: scaleX(-1);
  }
  .folded.rail header,
  .folded.rail .clock,
  .folded :deep(.find),
  .folded :deep(.waterline span),
  .folded :deep(.nothing),
  .folded :deep(.facts),
  .folded :deep(.more) {
    display: none;
  }
  .folded :deep(.row) {
    flex-direction: column;
    gap: 0;
    align-items: center;
    font-size: var(--text-s);
  }
  .folded :deep(.name) {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
@media (max-width: 900px) {
  .rail {
    width: auto;
  }
  .fold {
    display: none;
  }
}
.switch {
  font-family: var(--serif);
  font-weight: 560;
}
.show-name {
  display: flex;
  align-items: center;
  min-height: 42px;
  font: 560 var(--text-l) var(--serif);
  color: var(--ink);
  text-decoration: none;
}
</style>
