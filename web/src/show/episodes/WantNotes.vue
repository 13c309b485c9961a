<script setup lang="ts">
import { computed } from 'vue'
import type { EpisodeField } from '@core/episode/fields'
import type { Want } from '@core/episode/wants'
import { severityNames } from '@core/words/severity'
import { wantWords } from './wantWords'

/** What is found about one field, below it. */
const props = defineProps<{ wants: readonly Want[]; field: EpisodeField }>()
const here = computed(() => props.wants.filter(({ field }) => field === props.field))
</script>

<template>
  <ul v-if="here.length" class="wants small spaced quiet">
    <li v-for="want in here" :key="want.code + (want.told ?? '')" :data-want="want.code">
      <span class="severity">{{ severityNames[want.severity] }}:</span> {{ wantWords(want) }}
    </li>
  </ul>
</template>

<style scoped>
.wants {
  gap: var(--space-1);
  margin: var(--space-1) 0 0;
  padding: 0;
  list-style: none;
}
.severity {
  font-weight: 600;
}
</style>
