<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import type { Cue } from '@core/transcript/cue'
import { findWords, replaceWords } from '@core/transcript/edit'
import { t } from './messages'

/** Finds words in all cues, and puts others in their place one by one, or everywhere. */
const props = defineProps<{ cues: readonly Cue[] }>()
const emit = defineEmits<{ look: [id: string]; change: [cues: Cue[]] }>()
const words = ref('')
const by = ref('')
const at = ref(0)

const found = computed(() => findWords(props.cues, words.value))
const place = computed(() => found.value[Math.min(at.value, found.value.length - 1)])
/** What stands around the place that is looked at. */
const around = computed(() => {
  const cue = props.cues.find(({ id }) => id === place.value?.id)
  if (!cue || !place.value) return null
  const { at: from } = place.value
  const to = from + words.value.length
  return {
    before: cue.text.slice(Math.max(0, from - 30), from),
    hit: cue.text.slice(from, to),
    behind: cue.text.slice(to, to + 30),
  }
})
watch(words, () => (at.value = 0))
watch(place, to => to && emit('look', to.id))

function step(by: 1 | -1): void {
  if (found.value.length > 0) at.value = (at.value + by + found.value.length) % found.value.length
}
function replaceOne(): void {
  if (place.value) emit('change', replaceWords(props.cues, [place.value], words.value, by.value))
}
const replaceAll = (): void => emit('change', replaceWords(props.cues, found.value, words.value, by.value))
</script>

<template>
  <form class="find flowing" @submit.prevent="step(1)">
    <InputText v-model="words" size="small" :aria-label="t('wordsToFind')" :placeholder="t('find')" autofocus />
    <InputText v-model="by" size="small" :aria-label="t('replaceWith')" :placeholder="t('replaceWith')" />
    <Button type="submit" size="small" outlined :label="t('next')" :disabled="!found.length" />
    <Button
      type="button"
      size="small"
      outlined
      :label="t('replaceThisOne')"
      :disabled="!found.length"
      @click="replaceOne"
    />
    <Button
      type="button"
      size="small"
      text
      :label="t('replaceAll', { count: found.length || '' })"
      :disabled="!found.length"
      @click="replaceAll"
    />
    <span v-if="words" class="small quiet" role="status">
      <template v-if="around"
        >{{ t('foundPlace', { place: Math.min(at, found.length - 1) + 1, total: found.length }) }} …{{ around.before
        }}<mark class="bg-accent-wash text-inherit font-semibold">{{ around.hit }}</mark
        >{{ around.behind }}…</template
      >
      <template v-else>{{ t('notFound') }}</template>
    </span>
  </form>
</template>
