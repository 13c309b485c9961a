<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import { Info } from 'luxon'
import { computed, ref } from 'vue'
import { locale } from '../../platform/messages'
import { placeOf } from '../../platform/time/times'
import { t } from './messages'
import { whole } from './words'

/** When in the week downloads come: a bar for each hour, in the show's zone or where the listeners are. */
const props = defineProps<{ hours: readonly number[]; localHours: readonly number[]; zone: string }>()
const where = ref<'show' | 'listeners'>('show')
const choices = computed(() => [
  { value: 'show', name: t('inZone', { place: placeOf(props.zone) }) },
  { value: 'listeners', name: t('whereListenersAre') },
])
const week = computed(() => (where.value === 'show' ? props.hours : props.localHours))
const most = computed(() => Math.max(1, ...week.value))
const weekdays = Info.weekdays('short', { locale })
const longWeekdays = Info.weekdays('long', { locale })
const hourName = (hour: number): string => `${String(hour).padStart(2, '0')}:00`
const rows = computed(() => weekdays.map((name, day) => ({ name, hours: week.value.slice(day * 24, day * 24 + 24) })))
const busiest = computed(() => {
  const at = week.value.indexOf(most.value)
  return at < 0 ? '' : t('busiest', { day: longWeekdays[Math.floor(at / 24)]!, hour: hourName(at % 24) })
})
</script>

<template>
  <section class="spaced gap-2">
    <div class="head">
      <h2 class="text-l">{{ t('hoursOfTheWeek') }}</h2>
      <SelectButton
        v-model="where"
        :options="choices"
        option-label="name"
        option-value="value"
        size="small"
        :allow-empty="false"
        :aria-label="t('whoseClock')"
      />
    </div>
    <p>
      {{ busiest }} <span v-if="where === 'listeners'" class="quiet small">{{ t('listenersClockHint') }}</span>
    </p>
    <div class="scrolls" tabindex="0" role="region" :aria-label="t('hoursOfTheWeek')">
      <table :aria-label="t('hoursOfTheWeek')">
        <thead>
          <tr>
            <th scope="col" class="out-of-sight">{{ t('day') }}</th>
            <th v-for="hour in 24" :key="hour" scope="col" class="figures small quiet">
              <span :class="{ 'out-of-sight': (hour - 1) % 6 }">{{ hourName(hour - 1) }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.name">
            <th scope="row" class="small">{{ row.name }}</th>
            <td v-for="(downloads, hour) in row.hours" :key="hour" :title="`${hourName(hour)}: ${whole(downloads)}`">
              <span class="cell" aria-hidden="true"
                ><span class="bar" :style="{ blockSize: `${(downloads / most) * 100}%` }"
              /></span>
              <span class="out-of-sight">{{ whole(downloads) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3);
  align-items: baseline;
  justify-content: space-between;
}
table {
  width: 100%;
  min-width: 30rem;
  table-layout: fixed;
  border-collapse: collapse;
}
thead th {
  overflow: visible;
  text-align: start;
  white-space: nowrap;
  font-weight: 400;
}
th[scope='row'] {
  padding-inline-end: var(--space-2);
  font-weight: 400;
  text-align: start;
}
th:first-child {
  width: 3rem;
}
td {
  padding: 0 1px;
}
.cell {
  display: flex;
  align-items: flex-end;
  block-size: 1.6rem;
  border-block-end: 1px solid var(--edge);
}
.bar {
  inline-size: 100%;
  background: var(--accent);
}
@media (forced-colors: active) {
  .bar {
    background: CanvasText;
  }
}
</style>
