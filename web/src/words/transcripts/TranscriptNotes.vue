<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import type { TranscriptFacts, TranscriptSummary } from '@contract/transcripts'
import { judgementOf } from '@core/transcript/doubtful'
import { useTranscript } from './transcript'
import { languageName } from './words'
import { t } from './messages'

/** What there is to know before a transcript is worked on: whether it fits the sound, was read, is being laid. */
const props = defineProps<{ open: TranscriptSummary; busy: boolean }>()
const emit = defineEmits<{ align: []; move: []; next: []; facts: [facts: Omit<TranscriptFacts, 'version'>] }>()
const { cues, remarks, lost, doubtful } = storeToRefs(useTranscript())
/** What a file says of its times is no judgement of the laying. */
const judgement = computed(() => (props.open.origin === 'aligned' ? judgementOf(cues.value) : null))
const keys = t('doubtKeys')
</script>

<template>
  <div class="notes spaced">
    <div v-if="!open.fits" class="note needs-you">
      <h3>{{ t('theAudioHasChanged') }}</h3>
      <p>{{ t('audioChangedHint') }}</p>
      <div class="actions">
        <Button size="small" :label="t('syncAgain')" :disabled="busy" @click="emit('align')" />
        <Button size="small" outlined :label="t('moveTheTimes')" @click="emit('move')" />
        <Button size="small" text :label="t('theyAreRight')" @click="emit('facts', { fits: true })" />
      </div>
    </div>
    <p v-if="open.alignment === 'working'" class="note" role="status">
      {{ t('syncingTells') }}
      <ProgressBar
        :value="Math.round(open.alignedShare * 100)"
        :show-value="false"
        :aria-label="t('syncProgress')"
        class="progress"
      />
    </p>
    <p v-else-if="open.alignment === 'failed'" class="note needs-you" role="alert">
      {{ t('syncFailed') }}
    </p>
    <p v-else-if="open.alignment === 'overtaken'" class="note needs-you" role="alert">
      {{ t('textChangedWhileSyncing') }}
    </p>
    <div v-if="open.isUnread" class="note needs-you unread flowing gap-x-3 gap-y-1">
      <p>
        <strong>{{ t('draftUnread') }}</strong> {{ t('draftUnreadTells') }}
        <span v-if="doubtful.length" class="small">{{ keys }}</span>
      </p>
      <div class="actions">
        <Button
          v-if="doubtful.length"
          size="small"
          :label="t('goThroughDoubts', { count: doubtful.length })"
          @click="emit('next')"
        />
        <Button
          size="small"
          :outlined="doubtful.length > 0"
          :label="t('markAsChecked')"
          :disabled="busy"
          @click="emit('facts', { isUnread: false })"
        />
      </div>
    </div>
    <p v-else-if="doubtful.length" class="note needs-you" role="status">
      <template v-if="judgement === 'estimated'">{{
        t('timesEstimated', { language: languageName(open.language) })
      }}</template>
      <template v-else-if="judgement === 'of something else'"
        ><strong>{{ t('doesNotMatchAudio') }}</strong> {{ t('isItOfThisEpisode') }}</template
      >
      <template v-else>{{ t('machineUnsure', { count: doubtful.length }) }}</template>
      {{ ' ' }}<button type="button" class="small-button" @click="emit('next')">{{ t('hearTheNextOne') }}</button>
      {{ ' ' }}<span class="small">{{ keys }}</span>
    </p>
    <p v-for="remark in remarks" :key="remark" class="small quiet" role="status">{{ remark }}</p>
    <p v-if="lost.length" class="note needs-you" role="status">
      {{
        t('changedElsewhere', {
          count: lost.length,
          theirs: lost
            .map(({ text }) => text)
            .join(' ')
            .slice(0, 300),
        })
      }}
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
