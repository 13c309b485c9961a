<script setup lang="ts">
import { computed } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import LetterGlyph from '../../platform/parts/LetterGlyph.vue'
import { shortDay, shortMoment } from '../../platform/time/times'
import { t } from './messages'

/** An episode on the waterline: gone out, or to come, and then to be dragged to another moment. */
const props = defineProps<{ episode: EpisodeSummary; at: Date; zone: string; isMoving: boolean }>()
const isComing = computed(() => props.episode.status === 'scheduled')
const isUnready = computed(() => isComing.value && props.episode.hindrances.length > 0)
const hint = computed(() => (isComing.value ? t('dragLetter', { title: props.episode.title }) : props.episode.title))
</script>

<template>
  <button
    type="button"
    class="letter small"
    :class="[isComing ? 'coming' : 'gone', { moving: isMoving, unready: isUnready }]"
    :title="hint"
  >
    <LetterGlyph :status="episode.status" />
    <span class="words grid min-w-0"
      ><span class="title"
        ><span v-if="episode.number" class="number quiet font-normal">{{ episode.number }}</span
        >{{ ' ' }}{{ episode.title }}</span
      >
      <strong v-if="isUnready">{{ t('notReady') }}</strong>
      <span class="figures quiet whitespace-nowrap">{{
        isComing ? shortMoment(at, zone) : shortDay(at, zone)
      }}</span></span
    >
  </button>
</template>

<style scoped>
.letter {
  position: absolute;
  display: flex;
  gap: var(--space-1);
  width: 156px;
  min-height: 56px;
  padding: 3px 4px;
  border: 0;
  background: none;
  line-height: 1.25;
  text-align: start;
  cursor: pointer;
}
.letter:hover .title {
  text-decoration: underline;
}
.gone {
  border-inline-end: 2px solid var(--deep-edge);
  background: var(--deep);
  color: var(--on-deep);
  --ink-soft: var(--on-deep-soft);
}
.coming {
  border-inline-start: 2px solid var(--accent);
  border-radius: 0 var(--round) var(--round) 0;
  background: var(--accent-wash);
  color: var(--ink);
  cursor: grab;
  touch-action: none;
}
.unready {
  border-inline-start: 4px solid var(--signal);
}
.unready .title {
  -webkit-line-clamp: 1;
}
.moving {
  z-index: 1;
  box-shadow: var(--shade);
  cursor: grabbing;
}
.title {
  display: -webkit-box;
  overflow: hidden;
  font-weight: 600;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
}
</style>
