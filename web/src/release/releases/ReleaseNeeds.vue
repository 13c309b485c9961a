<script setup lang="ts">
import { computed } from 'vue'
import { type Hindrance, hindering } from '@core/release/readiness'
import { t } from './messages'

/** The three needs of an episode, and which of them are met. */
const props = defineProps<{ hindrances: readonly Hindrance[]; arriving: boolean }>()
const audioWords: Readonly<Partial<Record<Hindrance, string>>> = {
  'being finished': t('audioBeingFinished'),
  'not finished': t('audioNotFinished'),
  'other format': t('audioUnplayable'),
}
const audioHindrance = computed(() => hindering('release', props.hindrances).find(each => each !== 'no title'))
const audio = computed(() => {
  if (!audioHindrance.value) return t('audioHere')
  return audioWords[audioHindrance.value] ?? (props.arriving ? t('audioUploading') : t('isMissing'))
})
const hasTitle = computed(() => !props.hindrances.includes('no title'))
</script>

<template>
  <ul class="unlisted flex flex-wrap gap-x-4 gap-y-1">
    <li :class="{ met: !audioHindrance }">
      <strong>{{ t('audio') }}</strong> {{ audio }}
    </li>
    <li :class="{ met: hasTitle }">
      <strong>{{ t('title') }}</strong> {{ hasTitle ? t('isWritten') : t('isMissing') }}
    </li>
    <li>
      <strong>{{ t('releaseTime') }}</strong> {{ t('isUpToYou') }}
    </li>
  </ul>
</template>

<style scoped>
li {
  padding-left: 1.4em;
  position: relative;
}
li::before {
  content: '';
  position: absolute;
  left: 0;
  top: 0.42em;
  width: 0.7em;
  height: 0.7em;
  border: 2px solid var(--signal);
  border-radius: 50%;
}
li.met {
  color: var(--ink-soft);
}
li.met::before {
  background: var(--accent);
  border-color: var(--accent);
}
</style>
