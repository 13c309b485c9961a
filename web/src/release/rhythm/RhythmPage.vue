<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import { DateTime } from 'luxon'
import { computed, ref } from 'vue'
import { type ShowChange, showChange } from '@contract/shows'
import type { Rhythm } from '@core/release/rhythm'
import { slotsAfter } from '@core/release/slots'
import FormField from '../../platform/parts/FormField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useSave } from '../../platform/parts/attempt'
import { useNow } from '../../platform/time/now'
import { useShows } from '../../show/shows/shows'
import { currentMoment } from '../../platform/time/now'
import { zonesWith } from '../../platform/time/zones'
import RhythmFields from './RhythmFields.vue'
import SlotDates from './SlotDates.vue'
import { t } from './messages'

/** When a show usually goes out, and where its listeners are when it does. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const now = useNow(60_000)
const show = computed(() => shows.bySlug(props.show)!)
const usual = (): Rhythm => ({
  unit: 'week',
  every: 1,
  days: [],
  nth: null,
  monthDay: null,
  time: '06:00',
  from: DateTime.fromJSDate(currentMoment()).setZone(show.value.zone).toISODate()!,
  leftOut: [],
})
const rhythm = ref<Rhythm>(show.value.rhythm ?? usual())
const places = ref<(string | null)[]>([show.value.listenerZones[0] ?? null, show.value.listenerZones[1] ?? null])
const listenerZones = computed(() => [...new Set(places.value.filter(zone => zone !== null))])
const zones = zonesWith(show.value.zone, ...show.value.listenerZones)

const form = ref<HTMLElement>()
const { problem, busy, saved, fault, save } = useSave(form)

const isWhole = computed(() => rhythm.value.unit !== 'week' || rhythm.value.days.length > 0)
const shownDates = 6
const slots = computed(() => {
  try {
    return isWhole.value ? slotsAfter(rhythm.value, show.value.zone, now.value, shownDates) : []
  } catch {
    return []
  }
})

const send = (change: Omit<ShowChange, 'version'>): Promise<boolean> => {
  const whole: ShowChange = { ...change, version: show.value.version }
  return save(showChange, whole, async () => {
    await shows.change(show.value.id, whole)
  })
}
/** Where listeners are can be said before anybody knows when it goes out. */
const keep = (): Promise<boolean> =>
  send({ ...(isWhole.value && { rhythm: rhythm.value }), listenerZones: listenerZones.value })
async function drop(): Promise<void> {
  if (await send({ rhythm: null, listenerZones: listenerZones.value })) rhythm.value = usual()
}
const leaveOut = (day: string): void => {
  rhythm.value = { ...rhythm.value, leftOut: [...rhythm.value.leftOut, day].toSorted() }
}
</script>

<template>
  <PageLayout :heading="t('rhythm')">
    <template #purpose>
      {{ t('rhythmHint', { zone: show.zone }) }}
    </template>
    <div class="halves">
      <div ref="form" class="stacked gap-4 content-start">
        <RhythmFields v-model="rhythm" :zone="show.zone" :fault="field => fault(`rhythm.${field}`, true)" />
        <fieldset class="spaced m-0 p-0 border-0">
          <legend class="field-name p-0">{{ t('whereMostListenersAre') }}</legend>
          <p class="small quiet">{{ t('listenerZonesHint') }}</p>
          <FormField
            v-for="at in [0, 1]"
            :key="at"
            v-slot="{ id }"
            :label="at === 0 ? t('timeZone') : t('anotherOne')"
            :fault="fault(`listenerZones.${at}`)"
          >
            <Select
              v-model="places[at]"
              :input-id="id"
              :options="zones"
              filter
              show-clear
              :placeholder="t('nowhereElse')"
              :aria-labelledby="`${id}-name`"
            />
          </FormField>
        </fieldset>
        <ProblemNote v-if="problem" :problem="problem" />
        <div class="actions">
          <Button
            type="button"
            :label="t('save')"
            :loading="busy"
            :disabled="!isWhole && show.rhythm !== null"
            @click="keep"
          />
          <Button v-if="show.rhythm" type="button" :label="t('removeRhythm')" text :disabled="busy" @click="drop" />
          <span v-if="saved" class="quiet" role="status">{{ show.rhythm ? t('savedNote') : t('noRhythmNow') }}</span>
        </div>
      </div>
      <SlotDates
        :rhythm="rhythm"
        :is-whole="isWhole"
        :slots="slots"
        :zone="show.zone"
        :listener-zones="listenerZones"
        @leave-out="leaveOut"
        @bring-back="day => (rhythm = { ...rhythm, leftOut: rhythm.leftOut.filter(each => each !== day) })"
      />
    </div>
  </PageLayout>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--space-5) var(--space-6);
}
@media (max-width: 900px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
