<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import { type Cue, isTimed } from '@core/transcript/cue'
import { shiftCues, stretchCues } from '@core/transcript/edit'
import { timestampText, readTimestamp } from '@core/words/timestamps'
import { t } from './messages'

/** Moves cues in time: one, it and all after, or all of them between two moments, as for a transcript of another cut. */
const props = defineProps<{ cues: readonly Cue[]; chosenId: string | undefined; atMs: number }>()
const emit = defineEmits<{ change: [cues: Cue[]] }>()

const timed = computed(() => props.cues.filter(isTimed))
const chosen = computed(() => timed.value.find(({ id }) => id === props.chosenId) ?? timed.value[0])
const when = ref('')
watch(chosen, cue => (when.value = cue ? timestampText(cue.fromMs) : ''), { immediate: true })
const to = computed(() => readTimestamp(when.value))

const first = ref('')
const last = ref('')
watch(
  () => [timed.value[0]?.fromMs, timed.value.at(-1)?.fromMs] as const,
  ([begin, end]) => {
    first.value = begin === undefined ? '' : timestampText(begin)
    last.value = end === undefined ? '' : timestampText(end)
  },
  { immediate: true },
)
const fault = ref('')

function shift(which: 'one' | 'all after'): void {
  if (!chosen.value || to.value === null) return
  emit('change', shiftCues(props.cues, chosen.value.id, to.value - chosen.value.fromMs, which))
}
function stretch(): void {
  const [begin, end] = [readTimestamp(first.value), readTimestamp(last.value)]
  const [from, until] = [timed.value[0], timed.value.at(-1)]
  fault.value = ''
  if (begin === null || end === null || !from || !until) return
  try {
    emit(
      'change',
      stretchCues(props.cues, { isMs: from.fromMs, shouldMs: begin }, { isMs: until.fromMs, shouldMs: end }),
    )
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    fault.value = error.message
  }
}
</script>

<template>
  <div class="move small spaced">
    <form v-if="chosen" class="flowing" :aria-label="t('move')" @submit.prevent="shift('all after')">
      <span>{{ t('cueBeginsAt', { number: cues.indexOf(chosen) + 1, time: timestampText(chosen.fromMs) }) }}</span>
      <InputText v-model="when" size="small" class="when figures" :aria-label="t('whenItShouldBegin')" />
      <button type="button" class="small-button" @click="when = timestampText(atMs)">
        {{ t('nowAt', { time: timestampText(atMs) }) }}
      </button>
      <Button type="submit" size="small" outlined :label="t('moveItAndAfter')" :disabled="to === null" />
      <Button type="button" size="small" text :label="t('thisCueOnly')" :disabled="to === null" @click="shift('one')" />
    </form>
    <form v-if="timed.length > 1" class="flowing" :aria-label="t('stretch')" @submit.prevent="stretch">
      <span>{{ t('firstCueBegins') }}</span>
      <InputText v-model="first" size="small" class="when figures" :aria-label="t('whenFirstBegins')" />
      <span>{{ t('lastCueBegins') }}</span>
      <InputText v-model="last" size="small" class="when figures" :aria-label="t('whenLastBegins')" />
      <Button type="submit" size="small" outlined :label="t('adjustBetween')" />
      <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
    </form>
    <p v-if="!timed.length" class="quiet">{{ t('noCueHasTime') }}</p>
  </div>
</template>

<style scoped>
.when {
  width: 6.5rem;
}
</style>
