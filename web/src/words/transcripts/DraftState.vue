<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import type { TranscriptDraft } from '@contract/drafts'
import { languageName } from './words'

/** How the draft stands that a copyist was asked for. */
defineProps<{ draft: TranscriptDraft; busy: boolean }>()
const emit = defineEmits<{ again: []; stop: [] }>()
</script>

<template>
  <div v-if="draft.state === 'working'" class="note" data-testid="draft">
    <h3>Transcribing…</h3>
    <p role="status">
      <template v-if="draft.problem">{{ draft.problem }} It will be tried again automatically.</template>
      <template v-else
        >It is transcribing in {{ languageName(draft.language) }}; you can carry on with something else
        meanwhile.</template
      >
    </p>
    <ProgressBar
      :value="Math.round(draft.progress * 100)"
      :show-value="false"
      aria-label="Transcription progress"
      class="progress"
    />
    <button type="button" class="small-button" :disabled="busy" @click="emit('stop')">Cancel</button>
  </div>
  <div v-else class="note needs-you" role="alert" data-testid="draft">
    <h3>No draft was made</h3>
    <p>{{ draft.problem }}</p>
    <div class="actions">
      <Button size="small" label="Ask again" :disabled="busy" @click="emit('again')" />
      <Button size="small" text label="Cancel" :disabled="busy" @click="emit('stop')" />
    </div>
  </div>
</template>

<style scoped>
.progress {
  max-width: 24rem;
  height: 6px;
}
</style>
