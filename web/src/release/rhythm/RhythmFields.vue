<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { DateTime } from 'luxon'
import { computed, ref, watch } from 'vue'
import { dayName, ordinalName, ordinals, type Rhythm, type Weekday, weekdays } from '@core/release/rhythm'
import DayPicker from '../../platform/parts/DayPicker.vue'
import FormField from '../../platform/parts/FormField.vue'
import WeekdayButtons from '../../platform/parts/WeekdayButtons.vue'
import { readTimeOfDay } from '../../platform/time/timeOfDay'
import { t } from './messages'

/** What a rhythm is made of. */
const rhythm = defineModel<Rhythm>({ required: true })
defineProps<{ zone: string; fault: (field: string) => string | undefined }>()

const set = (part: Partial<Rhythm>): void => {
  rhythm.value = { ...rhythm.value, ...part }
}
const units = [
  { value: 'day', name: t('days') },
  { value: 'week', name: t('weeks') },
  { value: 'month', name: t('months') },
]
function setUnit(unit: Rhythm['unit']): void {
  const { days, nth, monthDay } = rhythm.value
  const day = days[0] ?? 'FR'
  if (unit !== 'month') set({ unit })
  else set(monthDay === null ? { unit, nth: nth ?? 1, days: [day] } : { unit, days: [day] })
}
const dayOptions = weekdays.map(value => ({ value, name: dayName(value).slice(0, 2), whole: dayName(value) }))
const whichOptions = [
  ...ordinals.map(nth => ({ value: String(nth), name: t('ordinalDay', { ordinal: ordinalName(nth) }) })),
  { value: 'day', name: t('aDayOfTheMonth') },
]
const which = computed(() => (rhythm.value.nth === null ? 'day' : String(rhythm.value.nth)))
function setWhich(value: string): void {
  if (value === 'day') set({ nth: null, monthDay: rhythm.value.monthDay ?? 1 })
  else set({ nth: Number(value) as Rhythm['nth'], monthDay: null })
}

const time = ref(rhythm.value.time)
watch(
  () => rhythm.value.time,
  text => {
    if (readTimeOfDay(time.value) !== text) time.value = text
  },
)
const timeFault = computed(() => (readTimeOfDay(time.value) ? undefined : t('timeRule')))
function setTime(): void {
  const read = readTimeOfDay(time.value)
  if (read) set({ time: read })
}
const dateOf = (day: string): Date => DateTime.fromISO(day).toJSDate()
const dayOf = (date: Date): string => DateTime.fromJSDate(date).toISODate()!
</script>

<template>
  <div class="rhythm spaced gap-3">
    <div class="row">
      <FormField v-slot="{ id }" :label="t('every')" :fault="fault('every')">
        <InputNumber
          :input-id="id"
          :model-value="rhythm.every"
          :min="1"
          :max="52"
          show-buttons
          class="count"
          @update:model-value="every => set({ every: every ?? 1 })"
        />
      </FormField>
      <SelectButton
        :model-value="rhythm.unit"
        :options="units"
        option-label="name"
        option-value="value"
        :allow-empty="false"
        :aria-label="t('unit')"
        @update:model-value="setUnit"
      />
    </div>
    <div v-if="rhythm.unit === 'week'">
      <span class="field-name block">{{ t('on') }}</span>
      <WeekdayButtons :model-value="rhythm.days" @update:model-value="days => set({ days })" />
      <span v-if="rhythm.days.length === 0" class="hint block">{{ t('weekdaysRule') }}</span>
    </div>
    <div v-else-if="rhythm.unit === 'month'" class="row">
      <FormField v-slot="{ id }" :label="t('which')">
        <Select
          :input-id="id"
          :model-value="which"
          :options="whichOptions"
          option-label="name"
          option-value="value"
          :aria-labelledby="`${id}-name`"
          @update:model-value="setWhich"
        />
      </FormField>
      <FormField v-if="rhythm.nth !== null" v-slot="{ id }" :label="t('day')" :fault="fault('days')">
        <Select
          :input-id="id"
          :model-value="rhythm.days[0]"
          :options="dayOptions"
          option-label="whole"
          option-value="value"
          :aria-labelledby="`${id}-name`"
          @update:model-value="(day: Weekday) => set({ days: [day] })"
        />
      </FormField>
      <FormField v-else v-slot="{ id }" :label="t('day')" :fault="fault('monthDay')" :hint="t('monthDayHint')">
        <InputNumber
          :input-id="id"
          :model-value="rhythm.monthDay"
          :min="1"
          :max="31"
          show-buttons
          class="count"
          @update:model-value="day => set({ monthDay: day ?? 1 })"
        />
      </FormField>
    </div>
    <div class="row begin">
      <FormField v-slot="{ id }" :label="t('timeInZone', { zone })" :fault="timeFault ?? fault('time')">
        <InputText :id="id" v-model="time" class="time" inputmode="numeric" autocomplete="off" @input="setTime" />
      </FormField>
      <FormField
        v-slot="{ id }"
        :label="t('countedFrom')"
        :fault="fault('from')"
        :hint="rhythm.every > 1 ? t('everyFromHere', { every: rhythm.every, unit: rhythm.unit }) : ''"
      >
        <DayPicker
          :model-value="dateOf(rhythm.from)"
          :input-id="id"
          @update:model-value="date => date && set({ from: dayOf(date) })"
        />
      </FormField>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3);
  align-items: end;
}
.begin {
  align-items: start;
}
.row > * {
  min-width: 0;
}
.rhythm :deep(.p-datepicker),
.rhythm :deep(.p-selectbutton) {
  max-width: 100%;
}
.rhythm :deep(.p-selectbutton) {
  flex-wrap: wrap;
}
.rhythm :deep(.p-datepicker-input) {
  min-width: 0;
  width: 100%;
}
.count :deep(input) {
  width: 5rem;
}
.time {
  width: 7rem;
}
</style>
