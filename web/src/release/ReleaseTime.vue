<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import DatePicker from 'primevue/datepicker'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { DateTime } from 'luxon'
import { computed, onMounted, ref, shallowRef } from 'vue'
import type { Release } from '@contract/episodes'
import type { SlotList } from '@contract/rhythm'
import { readLocalMoment, wallTime } from '@core/release/moment'
import FormField from '../parts/FormField.vue'
import { useShows } from '../show/shows'
import MomentThere from '../time/MomentThere.vue'
import { useNow } from '../time/now'
import { readTimeOfDay } from '../time/timeOfDay'
import { placeOf, shortMoment, untilThen } from '../time/times'

/** Chooses a moment: the next open slot of the rhythm, or one on the wall of a zone; says in words what it comes to. */
const props = defineProps<{
  episodeId: string
  zone: string
  listenerZones: readonly string[]
  first: string | null
  busy: boolean
}>()
const emit = defineEmits<{ set: [when: Release['when']]; cancel: [] }>()
const shows = useShows()
const now = useNow()

/** The day as the calendar holds it: its year, month and day are meant, its zone is not. */
const day = ref<Date | null>(null)
const time = ref('')
const zone = ref(props.zone)
const second = ref(false)
const own = Intl.DateTimeFormat().resolvedOptions().timeZone
const zones = [...new Set([props.zone, ...props.listenerZones, own, 'UTC'])]
const places = zones.map(each => ({ zone: each, name: placeOf(each) }))

function take(local: string, inZone = props.zone): void {
  zone.value = inZone
  second.value = false
  day.value = DateTime.fromISO(local.slice(0, 10)).toJSDate()
  time.value = local.slice(11, 16)
}
take(
  props.first
    ? wallTime(new Date(props.first), props.zone)
    : `${wallTime(DateTime.now().plus({ days: 1 }).toJSDate(), props.zone).slice(0, 10)}T06:00`,
)

const offered = 3
const slots = shallowRef<SlotList['slots']>([])
onMounted(async () => {
  const untouched = time.value
  slots.value = await shows.nextSlots(offered).catch(() => [])
  const [next] = slots.value
  if (next && !props.first && time.value === untouched) take(next.local)
})

const local = computed(() => {
  const read = readTimeOfDay(time.value)
  return day.value && read ? `${DateTime.fromJSDate(day.value).toISODate()}T${read}` : null
})
const read = computed(() => (local.value ? readLocalMoment(local.value, zone.value) : null))
const at = computed(() => {
  if (read.value?.kind === 'moment') return read.value.at
  return read.value?.kind === 'twice' ? (second.value ? read.value.second : read.value.at) : null
})
const isTaken = (slot: SlotList['slots'][number]): boolean => !!at.value && +at.value === +new Date(slot.at)
const fault = computed(() => {
  if (!day.value) return 'Choose a day.'
  if (!local.value) return 'A time such as 06:00.'
  if (read.value?.kind === 'skipped')
    return `The clock in ${zone.value} jumps over ${local.value.slice(11)} on that day; the next time it shows is ${read.value.next.slice(11)}.`
  return undefined
})
const minuteMs = 60_000
/** Another episode that goes out in the same minute. */
const beside = computed(() =>
  shows.near?.scheduled.episodes.find(
    ({ id, releaseAt }) =>
      id !== props.episodeId && at.value && Math.floor(+new Date(releaseAt!) / minuteMs) === +at.value / minuteMs,
  ),
)
const aMinuteLater = (): void => take(wallTime(new Date(+at.value! + minuteMs), zone.value), zone.value)
/** What is dated back goes out at once. */
const isPast = computed(() => at.value !== null && at.value <= now.value)

function set(): void {
  if (local.value)
    emit('set', {
      kind: 'at',
      local: local.value,
      zone: zone.value,
      ...(read.value?.kind === 'twice' && { second: second.value }),
      ...(isPast.value && { isDatedBack: true }),
    })
}
</script>

<template>
  <form class="when" @submit.prevent="set">
    <div v-if="slots.length" class="slots" role="group" aria-label="Open slots">
      <span class="field-name">Open slots</span>
      <button
        v-for="slot in slots"
        :key="slot.at"
        type="button"
        class="slot figures"
        :aria-pressed="isTaken(slot)"
        @click="take(slot.local)"
      >
        {{ shortMoment(slot.at, props.zone) }}
      </button>
    </div>
    <FormField v-slot="{ id }" label="Day">
      <DatePicker v-model="day" :input-id="id" date-format="D d M yy" fluid show-other-months :first-day-of-week="1" />
    </FormField>
    <FormField v-slot="{ id }" label="Time" :fault="fault">
      <InputText :id="id" v-model="time" class="time" inputmode="numeric" :invalid="!!fault" autocomplete="off" />
    </FormField>
    <FormField v-slot="{ id }" label="By the clock in">
      <Select
        v-model="zone"
        :input-id="id"
        :options="places"
        option-label="name"
        option-value="zone"
        :aria-labelledby="`${id}-name`"
      />
    </FormField>
    <div v-if="read?.kind === 'twice'" class="twice">
      <Checkbox v-model="second" binary input-id="second" size="small" /><label for="second"
        >The clock shows this time twice; take the second, {{ shortMoment(read.second, 'UTC') }} UTC</label
      >
    </div>
    <p v-if="at && !fault" class="small" role="status">
      <MomentThere :at="at" :zone="props.zone" :others="zones.filter(each => each !== props.zone && each !== 'UTC')" />
      <template v-if="isPast"
        ><strong>This is past: it goes out at once, and has that date.</strong> Apps sort it there, among what is
        older.</template
      >
      <template v-else>{{ untilThen(at, now) }}.</template>
    </p>
    <p v-if="beside" class="small beside" role="status">
      “{{ beside.title }}” goes out at the same moment; apps would order the two at random.
      <button type="button" class="link-button" @click="aMinuteLater">A minute later</button>
    </p>
    <div class="actions">
      <Button
        type="submit"
        :label="isPast ? 'Release it, dated back' : 'Schedule'"
        :disabled="!at || !!fault"
        :loading="busy"
      />
      <Button type="button" label="Leave it" text @click="emit('cancel')" />
    </div>
  </form>
</template>

<style scoped>
.when {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-4);
  align-items: end;
}
.when > p {
  flex: 1 1 14rem;
}
.slots {
  display: flex;
  flex: 1 1 100%;
  flex-wrap: wrap;
  gap: var(--space-2);
  align-items: center;
}
.slot {
  min-height: 28px;
  padding: 0 var(--space-3);
  border: 1px dashed var(--edge-strong);
  border-radius: var(--round);
  background: none;
  color: inherit;
  cursor: pointer;
}
.slot:hover {
  border-color: var(--accent);
}
.slot[aria-pressed='true'] {
  border-style: solid;
  border-color: var(--accent);
  background: var(--accent-wash);
  font-weight: 600;
}
.beside {
  padding-inline-start: var(--space-3);
  border-inline-start: 4px solid var(--signal);
}
.time {
  width: 6rem;
}
.twice {
  font-size: var(--text-s);
}
</style>
