<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, watch } from 'vue'
import { momentText, readMoment } from '@core/words/moments'

/** A moment of a sound, written as people write it: `5:00`, `1:02:09.4`. What is no moment says so and changes nothing. */
const props = defineProps<{ ms: number; label: string }>()
const emit = defineEmits<{ change: [ms: number]; fault: [words: string] }>()
const words = ref(momentText(props.ms))
watch(
  () => props.ms,
  ms => (words.value = momentText(ms)),
)
const isFaulty = computed(() => readMoment(words.value) === null)
watch(isFaulty, is => emit('fault', is ? `“${words.value}” is no time, such as 5:00 or 1:02:03.4.` : ''))

async function keep(): Promise<void> {
  const ms = readMoment(words.value)
  if (ms === null) return
  if (ms !== Math.round(props.ms / 100) * 100) emit('change', ms)
  await nextTick()
  words.value = momentText(props.ms)
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
