<script setup lang="ts">
import type { EpisodeSummary } from '@contract/episodes'
import { t } from './messages'

/** What can go out in an open slot: the drafts that are ready. */
defineProps<{ when: string; drafts: readonly EpisodeSummary[] }>()
const emit = defineEmits<{ fill: [draft: EpisodeSummary] }>()
</script>

<template>
  <div class="chooser spaced">
    <p class="field-name">{{ when }}</p>
    <template v-if="drafts.length">
      <p class="small">{{ t('whatToReleaseThen') }}</p>
      <button v-for="draft in drafts" :key="draft.id" type="button" class="small-button" @click="emit('fill', draft)">
        {{ draft.number ? `${draft.number} ` : '' }}{{ draft.title }}
      </button>
    </template>
    <p v-else class="small">{{ t('noDraftReady') }}</p>
  </div>
</template>

<style scoped>
.chooser {
  justify-items: start;
  max-width: 20rem;
  max-height: 60vh;
  overflow-y: auto;
}
</style>
