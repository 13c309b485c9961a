<script setup lang="ts">
import { computed } from 'vue'
import { hindranceWords } from '@core/release/readiness'
import LetterGlyph from '../../platform/parts/LetterGlyph.vue'
import type { Entry } from './entries'
import { t } from './messages'

/** An episode or an open slot on a day of the calendar. */
const props = defineProps<{ entry: Entry; canMove: boolean }>()
const time = computed(() => props.entry.local.slice(11))
const episode = computed(() => (props.entry.kind === 'episode' ? props.entry.episode : null))
const lacks = computed(() =>
  episode.value?.status === 'scheduled' ? episode.value.hindrances.map(each => hindranceWords[each]).join(', ') : '',
)
const status = computed(() => episode.value?.status)
</script>

<template>
  <button
    type="button"
    class="letter small"
    :class="[entry.kind, status, { unready: lacks, moves: canMove }]"
    :data-episode="episode?.id"
    :aria-haspopup="entry.kind === 'slot' ? 'dialog' : undefined"
  >
    <LetterGlyph v-if="episode" :status="episode.status" />
    <span class="words min-w-0 wrap-anywhere">
      <span v-if="status" class="out-of-sight">{{ status }}, </span>
      <span class="figures time quiet">{{ time }}</span>
      <span v-if="entry.showName" class="show">{{ entry.showName }}</span>
      <span class="title">{{
        episode ? `${episode.number ? `${episode.number} ` : ''}${episode.title}` : t('openSlot')
      }}</span>
      <span v-if="lacks" class="lacks">{{ t('itLacks', { lacks }) }}</span>
    </span>
  </button>
</template>

<style scoped>
.letter {
  display: flex;
  gap: var(--space-1);
  width: 100%;
  min-height: max(26px, var(--target));
  margin-block: 1px;
  padding: 2px 4px;
  border: 1px solid transparent;
  border-radius: var(--round);
  background: none;
  color: var(--ink);
  line-height: 1.25;
  text-align: start;
  cursor: pointer;
}
.released {
  color: var(--ink-soft);
}
.scheduled {
  border-color: var(--accent);
  background: var(--accent-wash);
}
.moves {
  cursor: grab;
}
.unready {
  border-color: var(--signal);
  border-inline-start-width: 4px;
}
.slot {
  border: 1px dashed var(--edge-strong);
  color: var(--ink-soft);
}
.slot:hover {
  border-color: var(--accent);
  color: var(--accent);
}
.time {
  margin-inline-end: 0.5ch;
  white-space: nowrap;
}
.show {
  margin-inline-end: 0.5ch;
  font-weight: 600;
}
.title {
  display: -webkit-inline-box;
  overflow: hidden;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  vertical-align: top;
}
.lacks {
  display: block;
  font-weight: 600;
}
.letter:hover .title {
  text-decoration: underline;
}
@media (max-width: 620px) {
  /* A day of a month on a phone is as wide as a time of day. */
  .day .letter {
    display: block;
    padding-inline: 1px;
    font-size: 0.68rem;
  }
}
</style>
