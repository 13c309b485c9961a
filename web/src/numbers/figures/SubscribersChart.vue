<script setup lang="ts">
import { computed } from 'vue'
import type { ShowNumbers } from '@contract/numbers'
import FoldPanel from '../../platform/parts/FoldPanel.vue'
import { dayInYear } from '../../platform/time/times'
import ChartFigure from '../charts/ChartFigure.vue'
import { t } from './messages'
import { whole } from './words'

/** How many follow the feed, as far as that can be estimated, and how. */
const props = defineProps<{ days: NonNullable<ShowNumbers['subscribers']>; showName: string; range: string }>()
const labels = computed(() => props.days.map(({ day }) => dayInYear(day, 'utc')))
const lines = computed(() => [
  { name: t('subscribers'), values: props.days.map(({ told, fetchers }) => told + fetchers) },
])
/** Fewer fetch at the weekend, so that a week is told together. */
const ofWeek = computed(() => {
  const week = props.days.slice(-7)
  if (week.length === 0) return null
  const mean = (values: number[]): number => Math.round(values.reduce((sum, each) => sum + each, 0) / values.length)
  return { told: mean(week.map(({ told }) => told)), fetchers: mean(week.map(({ fetchers }) => fetchers)) }
})
const summary = computed(() =>
  ofWeek.value ? t('subscribersNow', { count: ofWeek.value.told + ofWeek.value.fetchers }) : t('nothingYet'),
)
</script>

<template>
  <section class="spaced gap-2">
    <ChartFigure
      v-if="days.length > 0"
      :title="t('subscribersEstimated')"
      :summary="summary"
      :labels="labels"
      :lines="lines"
      :axis="t('dayUtc')"
      :dated="`${showName}, ${range}`"
    />
    <h2 v-else class="text-l">{{ t('subscribersEstimated') }}</h2>
    <p>{{ summary }}</p>
    <FoldPanel v-if="ofWeek">
      <template #line>{{ t('howEstimated') }}</template>
      <p class="flowing-text">
        {{ t('subscribersMethod', { told: whole(ofWeek.told), fetchers: whole(ofWeek.fetchers) }) }}
      </p>
    </FoldPanel>
  </section>
</template>
