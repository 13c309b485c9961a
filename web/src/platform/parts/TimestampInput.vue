<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, watch } from 'vue'
import { timestampText, readTimestamp } from '@core/words/timestamps'
import { t } from './messages'

/** A timestamp of a sound, written as people write it: `5:00`, `1:02:09.4`. What is none says so and changes nothing. */
const props = defineProps<{ ms: number; label: string }>()
const emit = defineEmits<{ change: [ms: number]; fault: [words: string] }>()
const words = ref(timestampText(props.ms))
watch(
  () => props.ms,
  ms => (words.value = timestampText(ms)),
)
const isFaulty = computed(() => readTimestamp(words.value) === null)
watch(isFaulty, is => emit('fault', is ? t('noTime', { words: words.value }) : ''))

async function keep(): Promise<void> {
  const ms = readTimestamp(words.value)
  if (ms === null) return
  if (ms !== Math.round(props.ms / 100) * 100) emit('change', ms)
  await nextTick()
  words.value = timestampText(props.ms)
}
</script>

<template>
  <InputText
    v-model="words"
    class="figures"
    size="small"
    :invalid="isFaulty"
    :aria-label="label"
    @change="keep"
    @keydown.enter.prevent="keep"
  />
</template>
