<script setup lang="ts">
import Button from 'primevue/button'
import type { TranscriptSummary } from '@contract/transcripts'
import type { TranscriptFormat } from '@core/transcript/formats'
import { t } from './messages'

/** What can be done to a transcript as a whole. */
export type TranscriptTool = 'find' | 'times' | 'speakers'
const tool = defineModel<TranscriptTool | null>({ required: true })
defineProps<{
  open: TranscriptSummary
  formats: readonly TranscriptFormat[]
  /** Places that are worth a look. */
  places: number
  canAlign: boolean
  busy: boolean
}>()
const emit = defineEmits<{ align: []; next: []; before: []; spoken: []; remove: [] }>()
const tools: { name: TranscriptTool; label: string }[] = [
  { name: 'find', label: t('find') },
  { name: 'times', label: t('moveTimes') },
  { name: 'speakers', label: t('whoSpeaks') },
]
const formatNames = { vtt: 'WebVTT', srt: 'SubRip', json: 'JSON', html: 'HTML', txt: 'text' } as const
</script>

<template>
  <div class="flex flex-wrap gap-x-3 gap-y-1 items-center justify-between">
    <span class="actions">
      <Button
        v-for="{ name, label } in tools"
        :key="name"
        size="small"
        :outlined="tool !== name"
        :label="label"
        :aria-expanded="tool === name"
        @click="tool = tool === name ? null : name"
      />
      <Button
        v-if="canAlign"
        size="small"
        :outlined="open.isTimed"
        :label="open.isTimed ? t('syncAgain') : t('syncWithTheAudio')"
        :title="t('syncHint')"
        :loading="open.alignment === 'working'"
        :disabled="busy || open.alignment === 'working'"
        @click="emit('align')"
      />
      <button v-if="places" type="button" class="small-button" @click="emit('next')">
        {{ t('countWarnings', { count: places }) }}
      </button>
    </span>
    <span class="small files flex flex-wrap gap-1 items-center justify-between">
      {{ t('downloadAs') }}
      <a
        v-for="format in formats"
        :key="format"
        class="small-button"
        :href="`/api/v1/transcripts/${open.id}/file.${format}`"
        download
        >{{ formatNames[format] }}</a
      >
      <button v-if="open.hasBefore" type="button" class="small-button" @click="emit('before')">
        {{ t('theVersionBeforeThis') }}
      </button>
      <button v-if="!open.isSpoken" type="button" class="small-button" @click="emit('spoken')">
        {{ t('isSpokenLanguage') }}
      </button>
      <button type="button" class="small-button" @click="emit('remove')">{{ t('remove') }}</button>
    </span>
  </div>
</template>

<style scoped>
.files {
  column-gap: var(--space-2);
}
</style>
