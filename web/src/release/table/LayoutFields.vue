<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { DateTime } from 'luxon'
import { computed } from 'vue'
import DayPicker from '../../platform/parts/DayPicker.vue'
import WeekdayButtons from '../../platform/parts/WeekdayButtons.vue'
import { readTimeOfDay } from '../../platform/time/timeOfDay'
import type { LaidOut } from './acts'
import { t } from './messages'

/** How chosen episodes are laid out over time. */
const laid = defineModel<LaidOut>({ required: true })
const props = defineProps<{ hasRhythm: boolean }>()
const set = (part: Partial<LaidOut>): void => {
  laid.value = { ...laid.value, ...part }
}
const day = computed({
  get: () => (laid.value.day ? DateTime.fromISO(laid.value.day).toJSDate() : null),
  set: (date: Date | null) => set({ day: date ? DateTime.fromJSDate(date).toISODate()! : null }),
})
const ways = [
  { name: 'from', value: 'from' },
  { name: 'up to', value: 'up to' },
]
const aparts = computed(() => [
  ...(props.hasRhythm ? [{ name: t('onePerSlot'), value: 'slots' }] : []),
  { name: t('onWeekdays'), value: 'weekdays' },
  { name: t('everyFewDays'), value: 'days' },
])
const orders = [
  { name: t('byNumber'), value: 'number' },
  { name: t('byFileName'), value: 'file name' },
  { name: t('asChosen'), value: 'as listed' },
]
</script>

<template>
  <div class="flex flex-wrap gap-2 items-center" role="group" :aria-label="t('datesOfTheSeries')">
    <SelectButton
      :model-value="laid.way"
      :options="ways"
      option-label="name"
      option-value="value"
      :allow-empty="false"
      size="small"
      :aria-label="t('fromOrUpTo')"
      @update:model-value="way => set({ way })"
    />
    <DayPicker v-model="day" :input-style="{ width: '9.5rem' }" :label="t('day')" />
    <Select
      :model-value="laid.apart"
      :options="aparts"
      option-label="name"
      option-value="value"
      :aria-label="t('interval')"
      @update:model-value="apart => set({ apart })"
    />
    <template v-if="laid.apart !== 'slots'">
      <WeekdayButtons
        v-if="laid.apart === 'weekdays'"
        :model-value="laid.weekdays"
        size="small"
        @update:model-value="days => set({ weekdays: days })"
      />
      <label v-else class="flex flex-wrap gap-2 items-center"
        >{{ t('every') }}
        <InputNumber
          :model-value="laid.every"
          :min="1"
          :max="366"
          :aria-label="t('everySoManyDays')"
          :input-style="{ width: '4rem' }"
          @update:model-value="every => set({ every: every ?? 1 })"
        />
        {{ t('unitDays', { count: laid.every }) }}</label
      >
      <label class="flex flex-wrap gap-2 items-center"
        >{{ t('atTime') }}
        <InputText
          :model-value="laid.time"
          :invalid="readTimeOfDay(laid.time) === null"
          :style="{ width: '5rem' }"
          :aria-label="t('time')"
          @update:model-value="time => set({ time: time ?? '' })"
        />
      </label>
    </template>
    <Select
      :model-value="laid.order"
      :options="orders"
      option-label="name"
      option-value="value"
      :aria-label="t('inWhichOrder')"
      @update:model-value="order => set({ order })"
    />
  </div>
</template>
