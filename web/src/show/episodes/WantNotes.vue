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
  <ul v-if="here.length" class="wants small spaced quiet gap-1 mt-1 mx-0 mb-0 p-0 list-none">
    <li v-for="want in here" :key="want.code + (want.told ?? '')" :data-want="want.code">
      <span class="font-semibold">{{ severityNames[want.severity] }}:</span> {{ wantWords(want) }}
    </li>
  </ul>
</template>
