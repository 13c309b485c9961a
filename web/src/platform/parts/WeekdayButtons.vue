<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import { dayName, type Weekday, weekdays } from '@core/release/rhythm'
import { t } from './messages'

/** Chooses days of the week. */
const days = defineModel<Weekday[]>({ required: true })
defineProps<{ size?: 'small' }>()
const options = weekdays.map(value => ({ value, name: dayName(value).slice(0, 2), whole: dayName(value) }))
</script>

<template>
  <SelectButton
    :model-value="days"
    :options="options"
    option-label="name"
    option-value="value"
    multiple
    :size="size"
    :aria-label="t('daysOfTheWeek')"
    @update:model-value="(chosen: Weekday[]) => (days = weekdays.filter(day => chosen.includes(day)))"
  >
    <template #option="{ option }"
      ><span :title="option.whole" :aria-label="option.whole">{{ option.name }}</span></template
    >
  </SelectButton>
</template>
