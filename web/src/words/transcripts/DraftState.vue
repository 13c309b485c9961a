<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import type { TranscriptDraft } from '@contract/drafts'
import { languageName } from './words'
import { t } from './messages'

/** How the draft stands that a copyist was asked for. */
defineProps<{ draft: TranscriptDraft; busy: boolean }>()
const emit = defineEmits<{ again: []; stop: [] }>()
</script>

<template>
  <div v-if="draft.state === 'working'" class="note" data-testid="draft">
    <h3>{{ t('transcribing') }}</h3>
    <p role="status">
      <template v-if="draft.problem">{{ t('triedAgain', { problem: draft.problem }) }}</template>
      <template v-else>{{ t('transcribingIn', { language: languageName(draft.language) }) }}</template>
    </p>
    <ProgressBar
      :value="Math.round(draft.progress * 100)"
      :show-value="false"
      :aria-label="t('transcriptionProgress')"
      class="progress"
    />
    <button type="button" class="small-button" :disabled="busy" @click="emit('stop')">{{ t('cancel') }}</button>
  </div>
  <div v-else class="note needs-you" role="alert" data-testid="draft">
    <h3>{{ t('noDraftWasMade') }}</h3>
    <p>{{ draft.problem }}</p>
    <div class="actions">
      <Button size="small" :label="t('askAgain')" :disabled="busy" @click="emit('again')" />
      <Button size="small" text :label="t('cancel')" :disabled="busy" @click="emit('stop')" />
    </div>
  </div>
</template>

<style scoped>
.progress {
  max-width: 24rem;
  height: 6px;
}
</style>
