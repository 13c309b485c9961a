<script setup lang="ts">
import { computed } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { clock } from '@core/words/amounts'
import LetterGlyph from '../../platform/parts/LetterGlyph.vue'
import { episodeName, isArriving } from '../../production/uploads/names'
import { shortDay, shortMoment } from '../../platform/time/times'
import { useUploads } from '../../production/uploads/uploads'
import { t } from './messages'

const props = defineProps<{ episode: EpisodeSummary; show: Show }>()
const uploads = useUploads()

const when = computed(() => {
  const { status, releaseAt } = props.episode
  if (status === 'scheduled') return t('scheduledAt', { moment: shortMoment(releaseAt!, props.show.zone) })
  if (status === 'released') return t('releasedOn', { day: shortDay(releaseAt!, props.show.zone) })
  return status === 'retired' ? t('retired') : t('draft')
})
</script>

<template>
  <li>
    <RouterLink
      class="row"
      :title="episodeName(episode, uploads.sendings)"
      :to="{ name: 'desk', params: { show: show.slug, id: episode.id } }"
    >
      <LetterGlyph :status="episode.status" />
      <span class="words grid min-w-0">
        <span class="title">
          <span v-if="episode.number" class="number figures quiet">{{ episode.number }}</span>{{ ' ' }}
          <span class="name">{{ episodeName(episode, uploads.sendings) }}</span>
        </span>
        <span class="facts figures quiet small">
          {{ when }}<template v-if="episode.durationMs"> · {{ clock(episode.durationMs) }}</template
          ><template v-else-if="isArriving(episode, uploads.sendings)"> · {{ t('audioUploading') }}</template
          ><template v-else> · {{ t('noAudioYet') }}</template>
          <strong v-if="episode.changedSinceRelease"> · {{ t('unpublishedChanges') }}</strong>
        </span>
      </span>
    </RouterLink>
  </li>
</template>

<style scoped>
.row {
  display: flex;
  gap: var(--space-3);
  padding: var(--space-2);
  border-radius: var(--round);
  color: var(--ink);
  text-decoration: none;
}
.row:hover {
  background: var(--accent-wash);
}
.row.router-link-active {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--accent);
}
.glyph {
  margin-top: 1px;
}
.title {
  font-weight: 600;
  line-height: 1.35;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
  overflow-wrap: anywhere;
}
.number {
  font-weight: 400;
  margin-right: 0.15em;
}
</style>
