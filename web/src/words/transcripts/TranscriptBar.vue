<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import { useTranscript } from './transcript'
import { languageName } from './words'
import { t } from './messages'

/** Which of the episode's transcripts is open, whether it is kept, and the way back from what was done to it. */
const emit = defineEmits<{ add: [] }>()
const transcript = useTranscript()
const { list, open, cues, saving, canUndo, canRedo } = storeToRefs(transcript)
const savingWords = {
  saved: t('saved'),
  unsaved: t('saving'),
  waiting: t('notSavedRetrying'),
  refused: t('notSaved'),
} as const
const count = computed(() => t('countCues', { count: cues.value.length }))
</script>

<template>
  <div class="bar">
    <span class="languages" role="group" :aria-label="t('languages')">
      <button
        v-for="each in list"
        :key="each.id"
        type="button"
        class="language"
        :aria-pressed="each.id === open?.id"
        @click="transcript.show(each.id)"
      >
        {{ languageName(each.language) }}{{ each.isSpoken ? t('andSpoken') : '' }}
      </button>
      <button type="button" class="small-button" @click="emit('add')">{{ t('anotherFileOrLanguage') }}</button>
    </span>
    <span class="small quiet figures" role="status" data-testid="cues-saving"
      >{{ count }} · {{ savingWords[saving] }}</span
    >
    <button type="button" class="small-button" :disabled="!canUndo" @click="transcript.undo">{{ t('undo') }}</button>
    <button type="button" class="small-button" :disabled="!canRedo" @click="transcript.redo">{{ t('redo') }}</button>
  </div>
</template>

<style scoped>
.bar,
.languages {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-3);
  align-items: center;
}
.languages {
  flex: 1 1 14rem;
  column-gap: var(--space-2);
}
.language {
  min-height: max(28px, var(--target));
  padding: 0 var(--space-2);
  border: 1px solid var(--edge);
  border-radius: var(--round);
  background: none;
  color: inherit;
  cursor: pointer;
}
.language[aria-pressed='true'] {
  border-color: var(--accent);
  background: var(--accent-wash);
  font-weight: 600;
}
</style>
