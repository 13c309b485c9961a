<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, useId } from 'vue'
import DayPicker from '../parts/DayPicker.vue'
import FormField from '../parts/FormField.vue'
import { placeOf, shortMoment } from './times'
import { type Picked, readPicked } from './wallMoment'
import { zonesWith } from './zones'
import { t } from './messages'

/** Chooses a day, a time and whose clock they are meant by; `zones` are those that come first. */
const picked = defineModel<Picked>({ required: true })
const props = defineProps<{ zones: readonly string[] }>()
const secondId = useId()
const read = computed(() => readPicked(picked.value))
const places = computed(() =>
  [...new Set([...props.zones, ...zonesWith(picked.value.zone)])].map(zone => ({ zone, name: placeOf(zone) })),
)
const set = (part: Partial<Picked>): void => {
  picked.value = { ...picked.value, ...part }
}
</script>

<template>
  <FormField v-slot="{ id }" :label="t('day')">
    <DayPicker :model-value="picked.day" :input-id="id" fluid @update:model-value="day => set({ day })" />
  </FormField>
  <FormField v-slot="{ id }" :label="t('time')" :fault="read.fault">
    <InputText
      :id="id"
      :model-value="picked.time"
      class="time"
      inputmode="numeric"
      :invalid="!!read.fault"
      autocomplete="off"
      @update:model-value="time => set({ time: time ?? '' })"
    />
  </FormField>
  <FormField v-slot="{ id }" :label="t('timeZone')">
    <Select
      :model-value="picked.zone"
      :input-id="id"
      :options="places"
      option-label="name"
      option-value="zone"
      filter
      :filter-fields="['name', 'zone']"
      class="zone"
      :aria-labelledby="`${id}-name`"
      @update:model-value="zone => set({ zone })"
    >
      <!-- It stands there while another one is searched for, too. -->
      <template #value>{{ placeOf(picked.zone) }}</template>
    </Select>
  </FormField>
  <div v-if="read.twice" class="small">
    <Checkbox
      :model-value="picked.second"
      binary
      :input-id="secondId"
      size="small"
      @update:model-value="second => set({ second })"
    /><label :for="secondId">{{ t('secondOfTwice', { moment: shortMoment(read.twice, 'UTC') }) }}</label>
  </div>
</template>

<style scoped>
.time {
  width: 6rem;
}
.zone {
  min-width: 8rem;
}
</style>
