<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import type { TranscriptFacts, TranscriptSummary } from '@contract/transcripts'
import { judgementOf } from '@core/transcript/doubtful'
import { useTranscript } from './transcript'
import { languageName } from './words'

/** What there is to know before a transcript is worked on: whether it fits the sound, was read, is being laid. */
const props = defineProps<{ open: TranscriptSummary; busy: boolean }>()
const emit = defineEmits<{ align: []; move: []; next: []; facts: [facts: Omit<TranscriptFacts, 'version'>] }>()
const { cues, remarks, lost, doubtful } = storeToRefs(useTranscript())
/** What a file says of its times is no judgement of the laying. */
const judgement = computed(() => (props.open.origin === 'aligned' ? judgementOf(cues.value) : null))
const keys = 'Alt N plays the next one, Alt R says that it is right.'
</script>

<template>
  <div class="notes spaced">
    <div v-if="!open.fits" class="note needs-you">
      <h3>The audio has changed</h3>
      <p>The times still match the previous audio. Sync again, move or stretch them, or mark them as correct.</p>
      <div class="actions">
        <Button size="small" label="Sync again" :disabled="busy" @click="emit('align')" />
        <Button size="small" outlined label="Move the times" @click="emit('move')" />
        <Button size="small" text label="They are right" @click="emit('facts', { fits: true })" />
      </div>
    </div>
    <p v-if="open.alignment === 'working'" class="note" role="status">
      Syncing with the audio: the text is spoken by a machine and the two are compared. An hour of audio takes about a
      minute.
      <ProgressBar
        :value="Math.round(open.alignedShare * 100)"
        :show-value="false"
        aria-label="Sync progress"
        class="progress"
      />
    </p>
    <p v-else-if="open.alignment === 'failed'" class="note needs-you" role="alert">
      It could not be synced with the audio. Does it belong to this audio? The times are unchanged; try again.
    </p>
    <p v-else-if="open.alignment === 'overtaken'" class="note needs-you" role="alert">
      The text was changed while it was syncing, and was left as it is. Sync again.
    </p>
    <div v-if="open.isUnread" class="note needs-you unread flowing gap-x-3 gap-y-1">
      <p>
        <strong>A draft that nobody has read.</strong> Names and words that sound alike are often wrong. It is published
        once you mark it as checked.
        <span v-if="doubtful.length" class="small">{{ keys }}</span>
      </p>
      <div class="actions">
        <Button
          v-if="doubtful.length"
          size="small"
          :label="`Go through ${doubtful.length === 1 ? 'one doubt' : `${doubtful.length} doubts`}`"
          @click="emit('next')"
        />
        <Button
          size="small"
          :outlined="doubtful.length > 0"
          label="Mark as checked"
          :disabled="busy"
          @click="emit('facts', { isUnread: false })"
        />
      </div>
    </div>
    <p v-else-if="doubtful.length" class="note needs-you" role="status">
      <template v-if="judgement === 'estimated'"
        >No voice here speaks {{ languageName(open.language) }}: the times are only estimated, by where something is
        heard.</template
      >
      <template v-else-if="judgement === 'of something else'"
        ><strong>Most of it does not match this audio.</strong> Is it of this episode?</template
      >
      <template v-else
        >The machine was not sure of {{ doubtful.length === 1 ? 'one place' : `${doubtful.length} places` }}.</template
      >
      {{ ' ' }}<button type="button" class="small-button" @click="emit('next')">Hear the next one</button> {{ ' '
      }}<span class="small">{{ keys }}</span>
    </p>
    <p v-for="remark in remarks" :key="remark" class="small quiet" role="status">{{ remark }}</p>
    <p v-if="lost.length" class="note needs-you" role="status">
      Another window changed {{ lost.length === 1 ? 'a cue' : `${lost.length} cues` }} that you changed, too. Yours
      stand. Theirs: “{{
        lost
          .map(({ text }) => text)
          .join(' ')
          .slice(0, 300)
      }}”
    </p>
  </div>
</template>

<style scoped>
.unread p {
  flex: 1 1 24rem;
}
.progress {
  max-width: 24rem;
  height: 6px;
  margin-top: var(--space-1);
}
.notes:empty {
  display: none;
}
</style>
