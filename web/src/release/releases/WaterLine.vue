<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { EpisodeSummary } from '@contract/episodes'
import type { SlotList } from '@contract/rhythm'
import { readLocalMoment, wallTime } from '@core/release/moment'
import { lanesOf, reachAround, shareOf } from '@core/release/waterline'
import SmallOverlay from '../../platform/parts/SmallOverlay.vue'
import { dragAlong } from '../../production/sound/drag'
import { useNow } from '../../platform/time/now'
import { dayInYear, shortMoment, timeOfDay } from '../../platform/time/times'
import SlotChooser from './SlotChooser.vue'
import WaterLetter from './WaterLetter.vue'
import { t } from './messages'

type OpenSlot = SlotList['slots'][number]

/** A strip of time: under water what has gone out, on paper what is to come, open slots as empty places. A letter is dragged to another moment. */
const props = defineProps<{
  show: string
  zone: string
  gone: readonly EpisodeSummary[]
  coming: readonly EpisodeSummary[]
  slots: readonly OpenSlot[]
  drafts: readonly EpisodeSummary[]
}>()
const emit = defineEmits<{
  move: [episode: EpisodeSummary, local: string]
  fill: [draft: EpisodeSummary, slot: OpenSlot]
}>()
const now = useNow(10_000)
const router = useRouter()

const strip = ref<HTMLElement>()
const widthPx = ref(0)
const measure = (): void => void (widthPx.value = strip.value!.offsetWidth)
onMounted(measure)
useResizeObserver(strip, measure)

const dateOf = ({ releaseAt }: EpisodeSummary): Date => new Date(releaseAt!)
const reach = computed(() =>
  reachAround(now.value, props.gone.map(dateOf), [
    ...props.coming.map(dateOf),
    ...props.slots.map(({ at }) => new Date(at)),
  ]),
)
const percent = (at: Date): number => shareOf(reach.value, at) * 100
const isSeen = (at: Date): boolean => percent(at) >= 0 && percent(at) <= 100

/** What has gone out lies before its moment, under water; what is to come stands behind its own, on paper. */
const letterPx = 158
const beginOf = (episode: EpisodeSummary): number => {
  const place = (percent(dateOf(episode)) / 100) * widthPx.value
  const begin = episode.status === 'scheduled' ? place : place - letterPx
  return Math.max(0, Math.min(begin, widthPx.value - letterPx))
}
const letters = computed(() => {
  const seen = [...props.gone, ...props.coming]
    .filter(episode => isSeen(dateOf(episode)))
    .toSorted((one, other) => +dateOf(one) - +dateOf(other))
  const places = seen.map(beginOf)
  const lanes = lanesOf(places, letterPx)
  return seen.map((episode, index) => ({
    episode,
    left: places[index]!,
    lane: lanes[index]!,
  }))
})
const lines = computed(() => Math.max(1, ...letters.value.map(({ lane }) => lane + 1)))
const slotPx = 62
const places = computed(() => {
  const seen = props.slots.filter(({ at }) => isSeen(new Date(at)))
  const lefts = seen.map(({ at }) => Math.min((percent(new Date(at)) / 100) * widthPx.value, widthPx.value - slotPx))
  const lanes = lanesOf(lefts, slotPx)
  return seen.map((slot, index) => ({ slot, left: lefts[index]!, lane: lanes[index]! }))
})
const slotLines = computed(() => Math.max(0, ...places.value.map(({ lane }) => lane + 1)))

/** What is dragged, and where it would go. */
const dragged = ref<{ episode: EpisodeSummary; local: string | null; at: Date } | null>(null)
const nearPx = 10
function placeAt(share: number, episode: EpisodeSummary): { local: string; at: Date } | null {
  const { fromMs, toMs } = reach.value
  const near = places.value.find(
    ({ left }) => share * widthPx.value > left - nearPx && share * widthPx.value < left + slotPx,
  )?.slot
  if (near) return { local: near.local, at: new Date(near.at) }
  const day = wallTime(new Date(fromMs + share * (toMs - fromMs)), props.zone).slice(0, 10)
  const local = `${day}T${timeOfDay(dateOf(episode), props.zone)}`
  const read = readLocalMoment(local, props.zone)
  return 'at' in read && read.at > now.value ? { local, at: read.at } : null
}
function drag(episode: EpisodeSummary, event: PointerEvent): void {
  if (episode.status !== 'scheduled' || event.button !== 0) return
  const box = strip.value!
  dragAlong(
    event,
    box,
    share => {
      const place = placeAt(share, episode)
      dragged.value = { episode, local: place?.local ?? null, at: place?.at ?? dateOf(episode) }
    },
    (hasMoved, last) => {
      const local = dragged.value?.local ?? null
      dragged.value = null
      // The press that follows is the end of the drag.
      hasDragged = hasMoved
      setTimeout(() => {
        hasDragged = false
      })
      const { top, bottom } = box.getBoundingClientRect()
      // Let go outside of the strip, or taken away by the system, it stays where it is.
      const isOutside = last.clientY < top - 40 || last.clientY > bottom + 40
      if (hasMoved && last.type === 'pointerup' && !isOutside && local) emit('move', episode, local)
    },
  )
}
let hasDragged = false
/** A drag is no press. */
function open({ id }: EpisodeSummary): void {
  if (!hasDragged) void router.push({ name: 'desk', params: { show: props.show, id } })
}
function key(episode: EpisodeSummary, event: KeyboardEvent): void {
  if (episode.status !== 'scheduled' || !event.shiftKey || !/^Arrow(?:Left|Right)$/.test(event.key)) return
  event.preventDefault()
  const at = +dateOf(episode)
  const slot =
    event.key === 'ArrowRight'
      ? props.slots.find(each => +new Date(each.at) > at)
      : props.slots.findLast(each => +new Date(each.at) < at)
  if (slot) emit('move', episode, slot.local)
}

const chooser = ref<InstanceType<typeof SmallOverlay>>()
const chosen = ref<OpenSlot>()
function choose(slot: OpenSlot, event: Event): void {
  chosen.value = slot
  chooser.value!.toggle(event)
}
function fill(draft: EpisodeSummary): void {
  chooser.value!.hide()
  emit('fill', draft, chosen.value!)
}
</script>

<template>
  <section class="line" :aria-label="t('waterline')">
    <div ref="strip" class="strip boxed" :style="{ '--lines': lines, '--slot-lines': slotLines }">
      <div class="water" :style="{ width: `${percent(now)}%` }" aria-hidden="true" />
      <span class="now figures small quiet" :style="{ left: `${percent(now)}%` }">{{
        t('nowAt', { time: timeOfDay(now, zone) })
      }}</span>
      <WaterLetter
        v-for="{ episode, left, lane } in letters"
        :key="episode.id"
        class="letter"
        :episode="episode"
        :at="dragged?.episode.id === episode.id ? dragged.at : dateOf(episode)"
        :zone="zone"
        :is-moving="dragged?.episode.id === episode.id"
        :style="{
          left: `${dragged?.episode.id === episode.id ? (percent(dragged.at) / 100) * widthPx : left}px`,
          '--lane': lane,
        }"
        @pointerdown="(event: PointerEvent) => drag(episode, event)"
        @click="open(episode)"
        @keydown="(event: KeyboardEvent) => key(episode, event)"
      />
      <button
        v-for="{ slot, left, lane } in places"
        :key="slot.at"
        type="button"
        class="slot figures quiet small"
        :style="{ left: `${left}px`, '--lane': lane }"
        :aria-label="t('openSlotAt', { moment: shortMoment(slot.at, zone) })"
        aria-haspopup="dialog"
        :title="t('openAt', { moment: shortMoment(slot.at, zone) })"
        @click="event => choose(slot, event)"
      >
        {{ dayInYear(slot.at, zone) }}
      </button>
    </div>
    <SmallOverlay ref="chooser" :label="t('fillAnOpenSlot')">
      <SlotChooser v-if="chosen" :when="shortMoment(chosen.at, zone)" :drafts="drafts" @fill="fill" />
    </SmallOverlay>
  </section>
</template>

<style scoped>
.strip {
  --slot: max(26px, var(--target));
  position: relative;
  height: calc(var(--lines) * 60px + var(--slot-lines) * (var(--slot) + 4px) + 34px);
  overflow: hidden;
}
.water {
  position: absolute;
  inset-block: 0;
  left: 0;
  background: var(--deep);
}
.water::after {
  content: '';
  position: absolute;
  inset-block: 0;
  left: calc(100% - 1px);
  width: 10px;
  background: var(--deep);
  mask: url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='10' height='52'%3E%3Cpath d='M5 0Q10 13 5 26T5 52H0V0Z'/%3E%3C/svg%3E")
    repeat-y;
}
.now {
  position: absolute;
  top: 4px;
  padding-inline-start: 14px;
}
.letter {
  top: calc(28px + var(--lane) * 60px);
}
.slot {
  position: absolute;
  bottom: calc(4px + var(--lane) * (var(--slot) + 4px));
  width: 58px;
  min-height: var(--slot);
  white-space: nowrap;
  padding: 0 var(--space-1);
  border: 1px dashed var(--edge-strong);
  border-radius: var(--round);
  background: var(--sheet);
  cursor: pointer;
}
.slot:hover {
  border-color: var(--accent);
  color: var(--accent);
}
</style>
