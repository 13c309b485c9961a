<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { computed } from 'vue'
import { amount, clock } from '@core/words/amounts'
import type { Sending } from './uploads'
import { t } from './messages'

const props = defineProps<{ sending: Sending }>()
const emit = defineEmits<{ pause: []; goOn: []; cancel: [] }>()

const percent = computed(() => Math.floor((props.sending.sentBytes / props.sending.bytes) * 100))
const words = computed(() => {
  const { state, sentBytes, bytes, pace } = props.sending
  const sent = t('sentOf', { sent: amount(sentBytes), size: amount(bytes) })
  if (state === 'sent') return t('uploadedReading', { size: amount(bytes) })
  if (state === 'here') return t('uploaded', { size: amount(bytes) })
  if (state === 'queued') return t('uploadWaiting', { size: amount(bytes) })
  if (state === 'paused') return t('uploadPaused', { sent })
  if (state === 'waiting') return t('uploadInterrupted', { sent })
  return pace
    ? t('uploadPace', { sent, pace: amount(pace.bytesPerSecond), time: clock(pace.secondsLeft * 1000) })
    : sent
})
</script>

<template>
  <div class="upload boxed spaced px-4 py-3" :class="{ waiting: sending.state === 'waiting' }">
    <div class="flex flex-wrap gap-x-4 gap-y-1 justify-between">
      <strong class="name wrap-anywhere">{{ sending.fileName }}</strong>
      <span class="figures small" role="status">{{ words }}</span>
    </div>
    <ProgressBar :value="percent" :show-value="false" :aria-label="t('uploadOf', { name: sending.fileName })" />
    <div v-if="sending.state !== 'sent' && sending.state !== 'here'" class="actions">
      <Button
        v-if="sending.state === 'paused'"
        type="button"
        size="small"
        outlined
        :label="t('resume')"
        @click="emit('goOn')"
      />
      <Button v-else type="button" size="small" outlined :label="t('pause')" @click="emit('pause')" />
      <Button type="button" size="small" text :label="t('cancelUpload')" @click="emit('cancel')" />
      <span class="small quiet">{{ t('keepWriting') }}</span>
    </div>
  </div>
</template>

<style scoped>
.waiting {
  border-color: var(--signal);
}
.upload :deep(.p-progressbar) {
  height: 8px;
}
.upload :deep(.p-progressbar-value) {
  transition: none;
}
</style>
