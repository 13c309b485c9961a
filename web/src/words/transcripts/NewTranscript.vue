<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { ref } from 'vue'
import { transcriptEndings } from '@core/transcript/cue'
import { languages } from '../../show/shows/languages'
import { t } from './messages'

/** Where a transcript comes from: a file, or words that are pasted. */
const language = defineModel<string>('language', { required: true })
defineProps<{ busy: boolean; problem: string; transcriptionHost: string | null; hasAudio: boolean }>()
const emit = defineEmits<{ file: [file: Blob, name: string]; draft: [] }>()
const input = ref<HTMLInputElement>()
const words = ref('')

const take = (): void => emit('file', new Blob([words.value]), '')
function pick(): void {
  const file = input.value?.files?.[0]
  input.value!.value = ''
  if (file) emit('file', file, file.name)
}
</script>

<template>
  <div class="new spaced" data-draft>
    <p>
      {{ t('newTranscriptHint') }}
    </p>
    <div class="actions">
      <Select
        v-model="language"
        :options="languages"
        option-label="name"
        option-value="code"
        filter
        size="small"
        :aria-label="t('languageOfTheTranscript')"
      />
      <Button type="button" size="small" :label="t('chooseAFile')" :loading="busy" @click="input?.click()" />
      <Button
        v-if="transcriptionHost"
        type="button"
        size="small"
        outlined
        :label="t('createADraft')"
        :disabled="busy || !hasAudio"
        @click="emit('draft')"
      />
      <input
        ref="input"
        class="out-of-sight"
        type="file"
        :accept="[...transcriptEndings, 'text/vtt', 'text/plain'].join()"
        :aria-label="t('fileOfTheTranscript')"
        tabindex="-1"
        @change="pick"
      />
    </div>
    <p v-if="transcriptionHost" class="small quiet">
      {{ hasAudio ? t('draftHint', { transcriptionHost }) : t('draftNeedsAudio') }}
    </p>
    <Textarea
      v-model="words"
      rows="4"
      fluid
      :aria-label="t('wordsOfTheTranscript')"
      :placeholder="t('wordsPlaceholder')"
    />
    <div class="actions">
      <Button
        type="button"
        size="small"
        outlined
        :label="t('useThisText')"
        :disabled="!words.trim() || busy"
        @click="take"
      />
    </div>
    <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.new {
  max-width: 46rem;
}
</style>
