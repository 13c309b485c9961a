<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import DatePicker from 'primevue/datepicker'
import InputText from 'primevue/inputtext'
import { DateTime } from 'luxon'
import { computed, ref } from 'vue'
import type { Release } from '@contract/episodes'
import { readLocalMoment, wallTime } from '@core/release/moment'
import FormField from '../parts/FormField.vue'
import { useNow } from '../time/now'
import { readTimeOfDay } from '../time/timeOfDay'
import { longMoment, shortMoment, untilThen, whereYouAre } from '../time/times'

/** Chooses a moment on the wall of the show's zone, and says in words what it comes to. */
const props = defineProps<{ zone: string; first: string | null; busy: boolean }>()
const emit = defineEmits<{ set: [when: Release['when']]; cancel: [] }>()
const now = useNow()

const start = props.first
  ? wallTime(new Date(props.first), props.zone)
  : `${wallTime(DateTime.now().plus({ days: 1 }).toJSDate(), props.zone).slice(0, 10)}T06:00`
/** The day as the calendar holds it: its year, month and day are meant, its zone is not. */
const day = ref<Date | null>(DateTime.fromISO(start.slice(0, 10)).toJSDate())
const time = ref(start.slice(11, 16))
const second = ref(false)

const local = computed(() => {
  const read = readTimeOfDay(time.value)
  return day.value && read ? `${DateTime.fromJSDate(day.value).toISODate()}T${read}` : null
})
const read = computed(() => (local.value ? readLocalMoment(local.value, props.zone) : null))
const at = computed(() => {
  if (read.value?.kind === 'moment') return read.value.at
  return read.value?.kind === 'twice' ? (second.value ? read.value.second : read.value.at) : null
})
const fault = computed(() => {
  if (!day.value) return 'Choose a day.'
  if (!local.value) return 'A time such as 06:00.'
  if (read.value?.kind === 'skipped')
    return `The clock in ${props.zone} jumps over ${local.value.slice(11)} on that day; the next time it shows is ${read.value.next.slice(11)}.`
  return at.value && at.value <= now.value
    ? 'This time is past. Choose one that lies ahead, or release now.'
    : undefined
})

function set(): void {
  if (local.value)
    emit('set', {
      kind: 'at',
      local: local.value,
      zone: props.zone,
      ...(read.value?.kind === 'twice' && { second: second.value }),
    })
}
</script>

<template>
  <form class="when" @submit.prevent="set">
    <FormField v-slot="{ id }" label="Day">
      <DatePicker v-model="day" :input-id="id" date-format="D d M yy" fluid show-other-months :first-day-of-week="1" />
    </FormField>
    <FormField v-slot="{ id }" :label="`Time in ${zone}`" :fault="fault">
      <InputText :id="id" v-model="time" inputmode="numeric" :invalid="!!fault" autocomplete="off" />
    </FormField>
    <div v-if="read?.kind === 'twice'" class="twice">
      <Checkbox v-model="second" binary input-id="second" size="small" /><label for="second"
        >The clock shows this time twice; take the second, {{ shortMoment(read.second, 'UTC') }} UTC</label
      >
    </div>
    <p v-if="at && !fault" class="small" role="status">
      {{ longMoment(at, zone) }}, {{ untilThen(at, now) }}.
      <template v-if="whereYouAre(at, zone)"><br />{{ whereYouAre(at, zone) }}.</template>
    </p>
    <div class="actions">
      <Button type="submit" label="Schedule" :disabled="!at || !!fault" :loading="busy" />
      <Button type="button" label="Leave it" text @click="emit('cancel')" />
    </div>
  </form>
</template>

<style scoped>
.when {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-4);
  align-items: end;
}
.when > p {
  flex: 1 1 16rem;
}
.twice {
  font-size: var(--text-s);
}
</style>
