<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { AudioFile, Upload } from '@contract/episodes'
import FindingNote from './FindingNote.vue'
import ProblemNote from './ProblemNote.vue'
import SoundFacts from './SoundFacts.vue'
import SoundPlayer from './SoundPlayer.vue'
import UploadProgress from './UploadProgress.vue'
import type { Sending } from '../stores/uploads'

/** The audio of an episode: on its way, here, or not yet. */
const props = defineProps<{ audio: AudioFile | null; upload: Upload | null; sending: Sending | null; showSlug: string }>()
const emit = defineEmits<{ file: [file: File]; pause: []; goOn: []; cancel: [] }>()
const input = ref<HTMLInputElement>()

const problem = computed(() => {
  if (props.sending) return props.sending.problem
  const { refusal, fileName } = props.upload ?? {}
  return refusal ? { ...refusal, detail: `${fileName}: ${refusal.detail}` } : null
})
const underway = computed(() => props.sending && props.sending.state !== 'refused' ? props.sending : null)
const reading = computed(() => props.upload?.state === 'reading')
/** Begun, not finished, and not sent by this window. */
const stranded = computed(() => !props.sending && props.upload?.state === 'receiving' ? props.upload : null)

function pick(): void {
  const file = input.value?.files?.[0]
  input.value!.value = ''
  if (file) emit('file', file)
}
</script>

<template>
  <section class="sound" aria-label="Audio">
    <input ref="input" class="out-of-sight" type="file" accept="audio/*,.mp3,.m4a" aria-label="Audio file" tabindex="-1" @change="pick">
    <ProblemNote v-if="problem" :problem="problem">
      <Button type="button" size="small" label="Choose a file" @click="input?.click()" />
    </ProblemNote>
    <UploadProgress v-if="underway" :sending="underway" @pause="emit('pause')" @go-on="emit('goOn')" @cancel="emit('cancel')" />
    <p v-else-if="reading" class="busy" role="status">Reading {{ upload!.fileName }}: length, tags, waveform …</p>
    <div v-else-if="stranded" class="note needs-you">
      <h3>The upload of {{ stranded.fileName }} is not finished</h3>
      <p>Another window may be sending it. If none is, choose the file again.</p>
      <div class="actions"><Button type="button" size="small" label="Choose the file" @click="input?.click()" /></div>
    </div>
    <template v-if="audio">
      <SoundPlayer :key="audio.id" :audio="audio" />
      <SoundFacts :audio="audio" :show-slug="showSlug" @replace="input?.click()" />
      <FindingNote v-for="finding in audio.findings" :key="finding.code" :finding="finding" />
    </template>
    <div v-else-if="!underway && !reading && !problem && !stranded" class="empty">
      <p class="big">Drop the audio anywhere on this window</p>
      <p class="quiet">MP3 or M4A. You can write on while it uploads.</p>
      <Button type="button" label="Choose a file" @click="input?.click()" />
    </div>
  </section>
</template>

<style scoped>
.sound { display: grid; gap: var(--space-2); }
.empty { display: grid; gap: var(--space-2); justify-items: center; padding: var(--space-5); border: 2px dashed var(--edge-strong); border-radius: var(--round); text-align: center; }
.big { font: 560 var(--text-l) var(--serif); }
.busy { padding: var(--space-3) var(--space-4); background: var(--accent-wash); border-radius: var(--round); }
.actions { margin-top: var(--space-2); }
</style>
