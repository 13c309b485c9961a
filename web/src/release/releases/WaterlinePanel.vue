<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import type { SlotList } from '@contract/rhythm'
import type { Show } from '@contract/shows'
import { wallTime } from '@core/release/moment'
import { hindering } from '@core/release/readiness'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { useShows } from '../../show/shows/shows'
import { useNow } from '../../platform/time/now'
import { longMoment, timesThere } from '../../platform/time/times'
import MovedNote from './MovedNote.vue'
import NeedsNow from './NeedsNow.vue'
import OrderNotes from './OrderNotes.vue'
import WaterLine from './WaterLine.vue'
import { FormattedMessage, t } from './messages'

/** The waterline of the open show, what was just moved along it, and the way back. */
const props = defineProps<{ show: Show }>()
const emit = defineEmits<{ drawn: [] }>()
const shows = useShows()
const slots = shallowRef<SlotList['slots'] | null>(null)
const now = useNow(5_000)
const problem = ref<ShownProblem | null>(null)
const moved = ref<{ episode: EpisodeSummary; to: string; from: string | null } | null>(null)

const offered = 8
watch(
  () => [props.show.version, shows.near] as const,
  async () => {
    slots.value = await shows.nextSlots(offered).catch(() => [])
    emit('drawn')
  },
  { immediate: true },
)
const gone = computed(() => shows.near?.released.episodes ?? [])
const coming = computed(() => shows.near?.scheduled.episodes ?? [])
/** What is held waits for somebody; the next one is ahead. */
const next = computed(() => coming.value.find(({ releaseAt }) => new Date(releaseAt!) > now.value))
const nextWhen = computed(() => {
  const { zone, listenerZones } = props.show
  const { title, releaseAt } = next.value!
  const there = timesThere(releaseAt!, zone, listenerZones)
  return { title, moment: longMoment(releaseAt!, zone), zone, there, isThere: there ? 'yes' : 'no' }
})
const ready = computed(
  () => shows.near?.draft.episodes.filter(({ hindrances }) => hindering('schedule', hindrances).length === 0) ?? [],
)

async function attempt(act: () => Promise<unknown>): Promise<void> {
  problem.value = null
  try {
    await act()
  } catch (error) {
    problem.value = problemOf(error, t('staysWhereItWas'))
    await shows.loadEpisodes().catch(() => undefined)
  }
}
async function move(episode: EpisodeSummary, local: string): Promise<void> {
  const from = episode.releaseAt && wallTime(new Date(episode.releaseAt), props.show.zone)
  if (from === local) return
  await attempt(async () => {
    moved.value = { episode: await shows.schedule(episode, local), to: local, from }
  })
}
/** Back to where it was, unless it has become another meanwhile. */
async function putBack(): Promise<void> {
  const { episode, from } = moved.value!
  moved.value = null
  await attempt(() => (from === null ? shows.unschedule(episode) : shows.schedule(episode, from)))
}
</script>

<template>
  <LoadingShape v-if="!slots" :what="t('theOpenSlots')" :lines="8" />
  <div v-else class="stacked">
    <p v-if="next" class="next">
      <FormattedMessage of="nextOut" :values="nextWhen">
        <template #label="{ words }"
          ><span class="field-name">{{ words }}</span></template
        >
        <template #link="{ words }"
          ><RouterLink :to="{ name: 'desk', params: { show: show.slug, id: next.id } }">{{
            words
          }}</RouterLink></template
        > </FormattedMessage
      >{{ ' ' }}
      <FormattedMessage v-if="next.hindrances.length" of="isNotReady" />
      <template v-else>{{ t('itIsReady') }}</template>
    </p>
    <p v-else-if="show.rhythm && slots[0]" class="next needs-you">
      {{ t('nothingScheduledNextSlot', { moment: longMoment(slots[0].at, show.zone) }) }}
    </p>
    <p v-else-if="!show.rhythm" class="next">
      <FormattedMessage of="nothingScheduledNoRhythm">
        <template #link="{ words }"
          ><RouterLink :to="{ name: 'rhythm', params: { show: show.slug } }">{{ words }}</RouterLink></template
        >
      </FormattedMessage>
    </p>
    <WaterLine
      :show="show.slug"
      :zone="show.zone"
      :gone="gone"
      :coming="coming"
      :slots="slots"
      :drafts="ready"
      @move="move"
      @fill="(draft, slot) => move(draft, slot.local)"
    />
    <NeedsNow :show="show.slug" :zone="show.zone" :coming="coming" />
    <OrderNotes :show="show" />
    <MovedNote v-if="moved" :title="moved.episode.title" :to="moved.to" :from="moved.from" @back="putBack" />
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>
