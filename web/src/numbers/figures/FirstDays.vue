<script setup lang="ts">
import { computed } from 'vue'
import type { AgeNumbers } from '@contract/numbers'
import ChartFigure from '../charts/ChartFigure.vue'
import { FormattedMessage, t } from './messages'
import { ageWords, whole } from './words'

/** An episode at its age beside those before it: in a sentence, and as a small curve. */
const props = defineProps<{ numbers: AgeNumbers }>()
const sentence = computed(() => {
  const { age, downloads, usual } = props.numbers
  const after = ageWords(age)
  return usual
    ? t('beside', { after, downloads, low: usual.low, high: usual.high, same: usual.low === usual.high ? 'yes' : 'no' })
    : t('alone', { after, downloads })
})
const labels = computed(() => props.numbers.curve.map((_, n) => String(n)))
const lines = computed(() => [{ name: props.numbers.episode.title, values: props.numbers.curve }])
const range = computed(() =>
  props.numbers.usual
    ? {
        name: t('usual'),
        low: props.numbers.usualCurve.map(each => each?.low ?? null),
        high: props.numbers.usualCurve.map(each => each?.high ?? null),
      }
    : undefined,
)
</script>

<template>
  <div class="first-days">
    <p class="sentence">
      <slot name="lead" />
      <FormattedMessage v-if="numbers.downloads === 0 && numbers.age.many < 2" of="justOut" />
      <template v-else>{{ sentence }}</template>
      <span v-if="numbers.usual" class="quiet small">{{ ' ' }}{{ t('usualOf', { count: numbers.usual.of }) }}</span>
    </p>
    <ChartFigure
      v-if="numbers.curve.length > 1 && numbers.total > 0"
      is-small
      :title="numbers.episode.title"
      :summary="sentence"
      :labels="labels"
      :lines="lines"
      :range="range"
      :axis="numbers.age.unit === 'hours' ? t('hour') : t('day')"
      dated=""
    />
    <p v-if="numbers.total > numbers.downloads" class="quiet small">
      {{ t('inAll', { count: whole(numbers.total) }) }}
    </p>
  </div>
</template>

<style scoped>
.first-days {
  display: grid;
  gap: var(--space-2);
}
.sentence {
  font-family: var(--serif);
  font-size: var(--text-l);
}
.sentence .small {
  font-family: var(--sans);
}
</style>
