<script setup lang="ts">
import DatePicker from 'primevue/datepicker'
import { t } from './messages'
import { locale } from '../messages'

/** Chooses a day, typed or by the sheet that its button opens. The week begins as in the calendar; each day has its whole name, and the chosen one is told as pressed. */
const day = defineModel<Date | null>({ required: true })
defineProps<{ inputId?: string; label?: string }>()

const whole = new Intl.DateTimeFormat(locale, { dateStyle: 'full' })
interface DayContext {
  date: { day: number; month: number; year: number }
  selected: boolean
}
// What the library leaves out or says otherwise than the days are used.
const told = {
  dropdown: { 'aria-label': t('chooseADay') },
  selectMonth: { 'aria-label': null },
  selectYear: { 'aria-label': null },
  dayView: { 'aria-label': t('days') },
  day: ({ context: { date, selected } }: { context: DayContext }) => ({
    role: 'button',
    'aria-label': whole.format(new Date(date.year, date.month, date.day)),
    'aria-pressed': selected,
    'aria-selected': null,
  }),
}
</script>

<template>
  <DatePicker
    :model-value="day"
    :input-id="inputId"
    :aria-label="label"
    date-format="D d M yy"
    show-other-months
    show-icon
    :show-on-focus="false"
    :pt="told"
    @update:model-value="value => (day = value as Date | null)"
  />
</template>
