<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { ref } from 'vue'
import { transcriptEndings } from '@core/transcript/cue'
import { languages } from '../../show/shows/languages'

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
      A transcript lets people read along and find your episode in search. Bring a file in WebVTT, SubRip, JSON, HTML,
      LRC, SubStation Alpha or plain text, or paste the text; it is published on the page and in the feed.
    </p>
    <div class="actions">
      <Select
        v-model="language"
        :options="languages"
        option-label="name"
        option-value="code"
        filter
        size="small"
        aria-label="Language of the transcript"
      />
      <Button type="button" size="small" label="Choose a file" :loading="busy" @click="input?.click()" />
      <Button
        v-if="transcriptionHost"
        type="button"
        size="small"
        outlined
        label="Create a draft"
        :disabled="busy || !hasAudio"
        @click="emit('draft')"
      />
      <input
        ref="input"
        class="out-of-sight"
        type="file"
        :accept="[...transcriptEndings, 'text/vtt', 'text/plain'].join()"
        aria-label="File of the transcript"
        tabindex="-1"
        @change="pick"
      />
    </div>
    <p v-if="transcriptionHost" class="small quiet">
      {{
        hasAudio
          ? `For a draft, the transcription service at ${transcriptionHost} receives the audio. You correct its draft before it is published.`
          : 'A draft can be made as soon as the audio is here.'
      }}
    </p>
    <Textarea
      v-model="words"
      rows="4"
      fluid
      aria-label="Words of the transcript"
      placeholder="Tove: Is it the reed?&#10;&#10;Benno: It is never the reed."
    />
    <div class="actions">
      <Button
        type="button"
        size="small"
        outlined
        label="Use this text"
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
