<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { computed } from 'vue'
import { amount, clock } from '@core/words/amounts'
import type { Sending } from './uploads'

const props = defineProps<{ sending: Sending }>()
const emit = defineEmits<{ pause: []; goOn: []; cancel: [] }>()

const percent = computed(() => Math.floor((props.sending.sentBytes / props.sending.bytes) * 100))
const words = computed(() => {
  const { state, sentBytes, bytes, pace } = props.sending
  const sent = `${amount(sentBytes)} of ${amount(bytes)}`
  if (state === 'sent') return `${amount(bytes)} uploaded; reading the file …`
  if (state === 'here') return `${amount(bytes)} uploaded`
  if (state === 'queued') return `${amount(bytes)}, waiting`
  if (state === 'paused') return `${sent}, paused`
  if (state === 'waiting') return `${sent}. Connection lost. It will resume where it stopped`
  return pace ? `${sent} · ${amount(pace.bytesPerSecond)}/s · ${clock(pace.secondsLeft * 1000)} left` : sent
})
</script>

<template>
  <div class="upload boxed spaced px-4 py-3" :class="{ waiting: sending.state === 'waiting' }">
    <div class="flex flex-wrap gap-x-4 gap-y-1 justify-between">
      <strong class="name wrap-anywhere">{{ sending.fileName }}</strong>
      <span class="figures small" role="status">{{ words }}</span>
    </div>
    <ProgressBar :value="percent" :show-value="false" :aria-label="`Upload of ${sending.fileName}`" />
    <div v-if="sending.state !== 'sent' && sending.state !== 'here'" class="actions">
      <Button
        v-if="sending.state === 'paused'"
        type="button"
        size="small"
        outlined
        label="Resume"
        @click="emit('goOn')"
      />
      <Button v-else type="button" size="small" outlined label="Pause" @click="emit('pause')" />
      <Button type="button" size="small" text label="Cancel upload" @click="emit('cancel')" />
      <span class="small quiet">You can keep writing; reloading the page will not interrupt the upload.</span>
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
