<script setup lang="ts">
import type { EpisodeSummary } from '@contract/episodes'

/** What can go out in an open slot: the drafts that are ready. */
defineProps<{ when: string; drafts: readonly EpisodeSummary[] }>()
const emit = defineEmits<{ fill: [draft: EpisodeSummary] }>()
</script>

<template>
  <div class="chooser spaced">
    <p class="field-name">{{ when }}</p>
    <template v-if="drafts.length">
      <p class="small">What should be released then?</p>
      <button v-for="draft in drafts" :key="draft.id" type="button" class="small-button" @click="emit('fill', draft)">
        {{ draft.number ? `${draft.number} ` : '' }}{{ draft.title }}
      </button>
    </template>
    <p v-else class="small">No draft is ready for it: an episode needs audio and a title first.</p>
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
