<script setup lang="ts">
import '@fullcalendar/vue3/skeleton.css'
import FullCalendar, { type CalendarOptions } from '@fullcalendar/vue3'
import dayGridPlugin from '@fullcalendar/vue3/daygrid'
import interactionPlugin from '@fullcalendar/vue3/interaction'
import listPlugin from '@fullcalendar/vue3/list'
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { Calendar, CalendarEpisode } from '@contract/calendar'
import { currentMoment } from '../../platform/time/now'
import CalendarLetter from './CalendarLetter.vue'
import { type Entry, entriesOf, type Look, movedBy, onDay, type OpenSlot } from './entries'
import { t } from './messages'

/** The days themselves, drawn by a library; every time is the wall time of its show, so the library is told that all is UTC. */
const props = defineProps<{ look: Look; shown: Calendar | null; firstDay: number }>()
const emit = defineEmits<{
  drawn: []
  look: [from: string, to: string, title: string]
  open: [episode: CalendarEpisode]
  move: [episode: CalendarEpisode, showId: string, local: string]
  fill: [slot: OpenSlot, event: Event]
}>()
const calendar = useTemplateRef('calendar')
const api = () => calendar.value!.getApi()
const views: Readonly<Record<Look, string>> = { month: 'dayGridMonth', agenda: 'agenda' }
/** An agenda begins with today, or where one has gone from there, and goes on for so long. */
const agenda: CalendarOptions & { type: string } = {
  type: 'list',
  duration: { days: 42 },
  dateAlignment: 'day',
  titleFormat: { day: 'numeric', month: 'short', year: 'numeric' },
  listDayFormat: { weekday: 'long', day: 'numeric', month: 'long' },
  // The library writes the date once more; there is no format for none.
  listDayHeaderInnerClass: ({ level }) => (level > 0 ? 'said-already' : ''),
}

const entries = computed(() => (props.shown ? entriesOf(props.shown) : []))
const canMove = (entry: Entry): boolean => entry.kind === 'episode' && entry.episode.status === 'scheduled'
const events = computed(() =>
  entries.value.map((entry, at) => ({
    id: String(at),
    title: entry.kind === 'episode' ? entry.episode.title : t('openSlot'),
    start: `${entry.local}:00Z`,
    editable: canMove(entry),
    extendedProps: { entry },
  })),
)
const dayBefore = (day: string): string =>
  new Date(+new Date(`${day}T00:00:00Z`) - 24 * 3600_000).toISOString().slice(0, 10)

const options = computed<CalendarOptions>(() => ({
  plugins: [dayGridPlugin, listPlugin, interactionPlugin],
  views: { agenda },
  initialView: views[props.look],
  initialDate: currentMoment().toISOString(),
  now: () => currentMoment().toISOString(),
  timeZone: 'UTC',
  headerToolbar: false,
  firstDay: props.firstDay,
  locale: 'en-gb',
  height: 'auto',
  // So the week after a month's last days is on its sheet.
  fixedWeekCount: true,
  dayMaxEvents: 6,
  eventDurationEditable: false,
  eventInteractive: false,
  displayEventTime: false,
  noEventsContent: t('noReleases'),
  dayCellClass: info => `day${info.isToday ? ' today' : ''}${info.isOther ? ' other' : ''}`,
  // The date of a cell as its name would hide what stands in it, and what the library writes at its head is for the eye alone.
  dayCellDidMount: ({ el }) => {
    const date = el.getAttribute('aria-label')
    if (!date) return
    el.removeAttribute('aria-label')
    const told = document.createElement('span')
    told.className = 'out-of-sight'
    told.textContent = date
    el.prepend(told)
  },
  dayCellTopClass: 'day-top',
  dayCellTopContent: info => (info.isToday ? t('dayToday', { day: info.dayNumberText }) : info.dayNumberText),
  dayHeaderInnerClass: 'day-name',
  listDayHeaderClass: 'list-day',
  eventClass: 'entry',
  events: events.value,
  datesSet: ({ startStr, endStr, view }) => {
    emit('look', startStr.slice(0, 10), dayBefore(endStr.slice(0, 10)), view.title)
  },
  eventDrop: ({ event, revert }) => {
    const { entry } = event.extendedProps as { entry: Entry }
    // What comes of it is told by the server; until then it stands where it was.
    revert()
    if (entry.kind === 'episode')
      emit('move', entry.episode, entry.episode.showId, onDay(entry.local, event.startStr.slice(0, 10)))
  },
}))
watch(
  () => props.look,
  look => api().changeView(views[look]),
)

const box = useTemplateRef('box')
const drawn = (): Promise<unknown> => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))
const isDrawn = ref(false)
/** The library makes room for the days and what is in them as it goes along; until that is done nobody sees it. */
watch(
  () => props.shown !== null,
  async isHere => {
    if (!isHere) return
    await drawn()
    isDrawn.value = true
    emit('drawn')
  },
  { immediate: true },
)
/** Whoever has moved a letter by keys, or stands on one while news comes, stands on it afterwards, wherever it is by then. */
watch(events, async () => {
  const { episode } = (document.activeElement as HTMLElement | null)?.dataset ?? {}
  if (episode === undefined || !box.value?.contains(document.activeElement)) return
  await drawn()
  if (document.activeElement === document.body)
    box.value?.querySelector<HTMLElement>(`[data-episode="${episode}"]`)?.focus()
})

function press(entry: Entry, event: Event): void {
  if (entry.kind === 'episode') emit('open', entry.episode)
  else emit('fill', entry.slot, event)
}
function key(entry: Entry, event: KeyboardEvent): void {
  const local = event.shiftKey && canMove(entry) ? movedBy(event.key, entry.local) : null
  if (local === null || entry.kind !== 'episode') return
  event.preventDefault()
  emit('move', entry.episode, entry.episode.showId, local)
}

defineExpose({
  earlier: () => api().prev(),
  later: () => api().next(),
  today: () => api().today(),
})
</script>

<template>
  <div ref="box" :class="['days boxed overflow-hidden', { invisible: !isDrawn }]">
    <FullCalendar ref="calendar" :options="options">
      <template #eventContent="{ event }">
        <CalendarLetter
          :entry="event.extendedProps.entry"
          :can-move="canMove(event.extendedProps.entry)"
          @click="(pressed: Event) => press(event.extendedProps.entry, pressed)"
          @keydown="(pressed: KeyboardEvent) => key(event.extendedProps.entry, pressed)"
        />
      </template>
    </FullCalendar>
  </div>
</template>

<style scoped>
.days :deep(.day) {
  min-height: 5.5rem;
  border: 1px solid var(--edge);
  box-shadow: inset 0 1px var(--edge);
}
.days :deep(.today) {
  background: var(--accent-wash);
}
.days :deep(.other) {
  background: var(--sheet-sunk);
}
.days :deep(.day-top) {
  padding: 2px var(--space-2);
  font-size: var(--text-s);
  color: var(--ink-soft);
  font-variant-numeric: tabular-nums;
}
.days :deep(.day-name) {
  padding: var(--space-1) var(--space-2);
  font-size: var(--text-s);
  font-weight: 600;
  color: var(--ink-soft);
}
.days :deep(.said-already) {
  display: none;
}
.days :deep(.list-day) {
  padding: var(--space-2) var(--space-4);
  background: var(--sheet-sunk);
  font-weight: 600;
}
</style>
