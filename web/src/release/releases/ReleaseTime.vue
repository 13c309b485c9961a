<script setup lang="ts">
import Button from 'primevue/button'
import { DateTime } from 'luxon'
import { computed, onMounted, shallowRef } from 'vue'
import type { Release } from '@contract/episodes'
import type { SlotList } from '@contract/rhythm'
import { wallTime } from '@core/release/moment'
import { useShows } from '../../show/shows/shows'
import MomentFields from '../../platform/time/MomentFields.vue'
import MomentThere from '../../platform/time/MomentThere.vue'
import { currentMoment, useNow } from '../../platform/time/now'
import { shortMoment, untilThen } from '../../platform/time/times'
import { pickedOf, readPicked } from '../../platform/time/wallMoment'
import { zonesToChoose } from '../../platform/time/zones'
import { t } from './messages'

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

const zones = zonesToChoose(props.zone, props.listenerZones)
const tomorrow = DateTime.fromJSDate(currentMoment()).plus({ days: 1 }).toJSDate()
const begun = pickedOf(
  props.first ? wallTime(new Date(props.first), props.zone) : `${wallTime(tomorrow, props.zone).slice(0, 10)}T06:00`,
  props.zone,
)
const picked = shallowRef(begun)

const offered = 3
const slots = shallowRef<SlotList['slots']>([])
onMounted(async () => {
  slots.value = await shows.nextSlots(offered).catch(() => [])
  const [next] = slots.value
  if (next && !props.first && picked.value === begun) picked.value = pickedOf(next.local, props.zone)
})

const read = computed(() => readPicked(picked.value))
const at = computed(() => read.value.at)
const isTaken = (slot: SlotList['slots'][number]): boolean => !!at.value && +at.value === +new Date(slot.at)
const minuteMs = 60_000
/** Another episode that goes out in the same minute. */
const beside = computed(() =>
  shows.near?.scheduled.episodes.find(
    ({ id, releaseAt }) =>
      id !== props.episodeId && at.value && Math.floor(+new Date(releaseAt!) / minuteMs) === +at.value / minuteMs,
  ),
)
function aMinuteLater(): void {
  const { zone } = picked.value
  picked.value = pickedOf(wallTime(new Date(+at.value! + minuteMs), zone), zone)
}
/** What is dated back goes out at once. */
const isPast = computed(() => at.value !== null && at.value <= now.value)

function set(): void {
  const { meant } = read.value
  if (meant) emit('set', { kind: 'at', ...meant, ...(isPast.value && { isDatedBack: true }) })
}
</script>

<template>
  <form class="when flex flex-wrap gap-x-4 gap-y-2 items-end" @submit.prevent="set">
    <div v-if="slots.length" class="slots flowing" role="group" :aria-label="t('openSlots')">
      <span class="field-name">{{ t('openSlots') }}</span>
      <button
        v-for="slot in slots"
        :key="slot.at"
        type="button"
        class="slot figures"
        :aria-pressed="isTaken(slot)"
        @click="picked = pickedOf(slot.local, zone)"
      >
        {{ shortMoment(slot.at, zone) }}
      </button>
    </div>
    <MomentFields v-model="picked" :zones="zones" />
    <p v-if="at" class="small" role="status">
      <MomentThere :at="at" :zone="zone" :others="zones.filter(each => each !== zone && each !== 'UTC')" />
      <template v-if="isPast"
        ><strong>{{ t('pastNote') }}</strong> {{ t('sortedAmongOlder') }}</template
      >
      <template v-else>{{ untilThen(at, now) }}.</template>
    </p>
    <p v-if="beside" class="small beside" role="status">
      {{ t('sameTimeAs', { title: beside.title }) }}
      <button type="button" class="small-button" @click="aMinuteLater">{{ t('aMinuteLater') }}</button>
    </p>
    <div class="actions">
      <Button
        type="submit"
        :label="isPast ? t('releaseWithPastDate') : t('schedule')"
        :disabled="!at"
        :loading="busy"
      />
      <Button type="button" :label="t('cancel')" text @click="emit('cancel')" />
    </div>
  </form>
</template>

<style scoped>
.when > p {
  flex: 1 1 14rem;
}
.slots {
  flex: 1 1 100%;
}
.slot {
  min-height: max(28px, var(--target));
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
</style>
