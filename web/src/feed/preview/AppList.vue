<script setup lang="ts">
import { computed } from 'vue'
import type { Preview } from '@contract/preview'
import { firstSentence } from '@core/episode/wants'
import { clock } from '@core/words/amounts'
import { cutForList, listLetters } from '@core/words/listCut'
import { shortDay } from '../../platform/time/times'
import { t } from './messages'

/** A listening app’s list, in a narrow and in a wide one: artwork, as much of the title as fits, and one line more. */
const props = defineProps<{ seen: Preview; zone: string }>()
const line = computed(() => props.seen.hook || firstSentence(props.seen.description))
const facts = computed(() =>
  [
    props.seen.at ? shortDay(props.seen.at, props.zone) : t('dayItGoesOut'),
    props.seen.durationMs === null ? '' : clock(props.seen.durationMs),
    props.seen.explicit ? 'explicit' : '',
  ]
    .filter(Boolean)
    .join(' · '),
)
</script>

<template>
  <figure v-for="letters in listLetters" class="mt-0 mx-0 mb-4" :key="letters">
    <figcaption class="small quiet">
      {{ letters === listLetters[0] ? t('narrowList', { letters }) : t('wideList', { letters }) }}
    </figcaption>
    <div class="row boxed" :style="{ maxWidth: `${letters * 0.44 + 6}rem` }">
      <img class="rounded" :src="seen.artworkAddress" alt="" width="56" height="56" />
      <div class="words">
        <p class="small quiet figures">{{ facts }}</p>
        <p class="title small font-semibold wrap-anywhere" dir="auto">
          {{ cutForList(seen.title || t('untitledEpisode'), letters) }}
        </p>
        <p class="line small quiet" dir="auto">{{ line || t('nothingToShow') }}</p>
      </div>
    </div>
  </figure>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr);
  gap: var(--space-3);
  margin-top: var(--space-1);
  padding: var(--space-3);
}
.line {
  display: -webkit-box;
  overflow: hidden;
  overflow-wrap: anywhere;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
</style>
