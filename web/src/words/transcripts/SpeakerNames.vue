<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import type { Cue } from '@core/transcript/cue'
import { renameSpeaker, speakersIn } from '@core/transcript/edit'
import { t } from './messages'

/** Who speaks, each renamed everywhere at once; the episode's people are offered. */
const props = defineProps<{ cues: readonly Cue[] }>()
const emit = defineEmits<{ change: [cues: Cue[]] }>()
const speakers = computed(() => {
  const counts = new Map<string, number>()
  for (const { speaker } of props.cues) if (speaker) counts.set(speaker, (counts.get(speaker) ?? 0) + 1)
  return speakersIn(props.cues).map(name => ({ name, count: counts.get(name)! }))
})
function rename(name: string, to: string): void {
  if (to.trim() !== name) emit('change', renameSpeaker(props.cues, name, to.trim() || null))
}
</script>

<template>
  <div class="small flex flex-wrap gap-x-4 gap-y-2">
    <label v-for="{ name, count } in speakers" :key="name" class="side-by-side gap-1">
      <InputText
        size="small"
        :model-value="name"
        list="transcript-speakers"
        :aria-label="t('nameOf', { name })"
        maxlength="120"
        @change="(event: Event) => rename(name, (event.target as HTMLInputElement).value)"
      />
      <span class="quiet">{{ t('countTimes', { count }) }}</span>
    </label>
    <p v-if="!speakers.length" class="quiet">{{ t('noSpeakers') }}</p>
  </div>
</template>
