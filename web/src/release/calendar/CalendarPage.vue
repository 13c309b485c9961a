<script setup lang="ts">
import Button from 'primevue/button'
import MultiSelect from 'primevue/multiselect'
import SelectButton from 'primevue/selectbutton'
import { computed, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { EpisodeSummary } from '@contract/episodes'
import { onNews } from '../../platform/news/news'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import SmallOverlay from '../../platform/parts/SmallOverlay.vue'
import MovedNote from '../releases/MovedNote.vue'
import SlotChooser from '../releases/SlotChooser.vue'
import { useShows } from '../../show/shows/shows'
import { shortMoment } from '../../platform/time/times'
import { firstDayOf } from '../../platform/time/week'
import { useCalendar, type CalendarEpisode } from './calendar'
import DayGrid from './DayGrid.vue'
import { type Look, looks, type OpenSlot } from './entries'
import { t } from './messages'

/** What goes out when, by month or as a list, of one show or several; moved by drag or by keys. */
const props = defineProps<{ show: string }>()
const calendar = useCalendar()
const shows = useShows()
const route = useRoute()
const router = useRouter()
const show = computed(() => shows.bySlug(props.show)!)
const grid = useTemplateRef('grid')
const title = ref('')
const isDrawn = ref(false)

const look = computed<Look>({
  get: () => (route.query.look === 'agenda' ? 'agenda' : 'month'),
  set: wanted => void router.replace({ query: { ...route.query, look: wanted === 'month' ? undefined : wanted } }),
})
const lookChoices = Object.entries(looks).map(([value, name]) => ({ value, name }))
const others = computed(() => (shows.list?.shows ?? []).filter(({ id }) => id !== show.value.id))
const choices = computed(() => [show.value, ...others.value].map(({ id, name }) => ({ id, name })))
const chosen = ref<string[]>([show.value.id])

const days = ref<{ from: string; to: string } | null>(null)
async function load(): Promise<void> {
  if (days.value) await calendar.load({ ...days.value, shows: chosen.value })
}
async function looked(from: string, to: string, name: string): Promise<void> {
  title.value = name
  days.value = { from, to }
  await load()
}
async function choose(ids: string[]): Promise<void> {
  // A calendar of no show would be an empty sheet.
  chosen.value = ids.length > 0 ? ids : [show.value.id]
  await load()
}
onNews(
  ({ kind, showId }) => chosen.value.includes(showId) && (kind === 'episode' || kind === 'show' || kind === 'clock'),
  calendar.refresh,
)

const open = ({ id, showId }: CalendarEpisode): void => {
  const { slug } = calendar.shown!.shows.find(each => each.id === showId)!
  void router.push({ name: 'desk', params: { show: slug, id } })
}

/** What goes out first after the days that are shown: at the end of a month they may be empty. */
const following = computed(() => {
  const { next, shows: known } = calendar.shown ?? {}
  if (!next) return null
  const { slug, zone } = known!.find(({ id }) => id === next.showId)!
  return { id: next.id, slug, title: next.title || t('untitledEpisode'), when: shortMoment(next.releaseAt!, zone) }
})

const chooser = useTemplateRef('chooser')
const slot = ref<OpenSlot | null>(null)
async function fillable(chosenSlot: OpenSlot, event: Event): Promise<void> {
  slot.value = chosenSlot
  chooser.value!.show(event, event.currentTarget ?? event.target)
  await calendar.loadDrafts(chosenSlot.showId).catch(() => undefined)
}
async function fill(draft: EpisodeSummary): Promise<void> {
  chooser.value!.hide()
  await calendar.move(draft, slot.value!.showId, slot.value!.local)
}
const inWords = (local: string): string => shortMoment(`${local}:00Z`, 'UTC')
</script>

<template>
  <section class="page stacked gap-3 px-5 py-4">
    <header class="flowing">
      <h1>{{ title || t('calendar') }}</h1>
      <div class="flex gap-1">
        <Button :label="t('previous')" size="small" outlined @click="grid?.earlier()" />
        <Button :label="t('today')" size="small" outlined @click="grid?.today()" />
        <Button :label="t('next')" size="small" outlined @click="grid?.later()" />
      </div>
      <SelectButton
        v-model="look"
        :options="lookChoices"
        option-label="name"
        option-value="value"
        :allow-empty="false"
        size="small"
        :aria-label="t('view')"
      />
      <MultiSelect
        v-if="others.length"
        :model-value="chosen"
        :options="choices"
        option-label="name"
        option-value="id"
        :aria-label="t('shows')"
        size="small"
        class="shows"
        :show-toggle-all="false"
        @update:model-value="choose"
      />
    </header>
    <MovedNote
      v-if="calendar.moved"
      :title="calendar.moved.episode.title"
      :to="calendar.moved.to"
      :from="calendar.moved.from"
      @back="calendar.putBack"
    />
    <ProblemNote v-if="calendar.problem" :problem="calendar.problem" />
    <div class="relative">
      <LoadingShape
        v-if="!isDrawn && !calendar.problem"
        class="absolute inset-0 content-start"
        :what="t('theCalendar')"
        :lines="8"
      />
      <DayGrid
        ref="grid"
        :look="look"
        :first-day="firstDayOf(show.language)"
        :shown="calendar.shown"
        @drawn="isDrawn = true"
        @look="looked"
        @open="open"
        @move="calendar.move"
        @fill="fillable"
      />
    </div>
    <p v-if="isDrawn && following" class="next">
      {{ t('afterTheseDays') }}
      <RouterLink :to="{ name: 'desk', params: { show: following.slug, id: following.id } }">{{
        following.title
      }}</RouterLink>
      {{ following.when }}
    </p>
    <p v-if="isDrawn" class="small quiet">
      {{ t('calendarHint') }}
      <RouterLink :to="{ name: 'you', params: { show: show.slug } }">{{ t('haveInOwnCalendar') }}</RouterLink>
    </p>
    <SmallOverlay ref="chooser" :label="t('fillAnOpenSlot')">
      <SlotChooser v-if="slot" :when="inWords(slot.local)" :drafts="calendar.drafts" @fill="fill" />
    </SmallOverlay>
  </section>
</template>

<style scoped>
h1 {
  min-width: 12rem;
}
.shows {
  max-width: 18rem;
  margin-inline-start: auto;
}
</style>
