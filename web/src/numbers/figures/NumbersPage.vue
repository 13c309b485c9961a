<script setup lang="ts">
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, onBeforeUnmount, watch } from 'vue'
import { type RouteLocationRaw, useRoute, useRouter } from 'vue-router'
import type { Source } from '@core/counting/count'
import type { Device } from '@core/counting/programs'
import { useAttempt } from '../../platform/parts/attempt'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { currentMoment } from '../../platform/time/now'
import { dayInYear, shortDay, shortMoment } from '../../platform/time/times'
import { useShows } from '../../show/shows/shows'
import ChartFigure from '../charts/ChartFigure.vue'
import CountingFacts from './CountingFacts.vue'
import DayMarks from './DayMarks.vue'
import FigureRows from './FigureRows.vue'
import { t } from './messages'
import { useNumbers } from './numbers'
import { daysOf, isPeriod, type Period, periods, stepsOf } from './period'
import { nameOf, useReleased } from './released'
import SubscribersChart from './SubscribersChart.vue'
import WeekHours from './WeekHours.vue'
import { deviceNames, placeName, refusalWords, share, sourceNames, whole } from './words'

/** What a show's downloads come to, of all episodes or of one; each figure leads to what it was made from. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const route = useRoute()
const router = useRouter()
const show = computed(() => shows.bySlug(props.show)!)
const { episodes, isBeforeFirst, find } = useReleased(() => show.value.id)
const store = useNumbers()
const numbers = computed(() => store.figures)
onBeforeUnmount(store.leave)
const { problem, busy, attempt } = useAttempt(t('numbersStillHere'))

const period = computed<Period>({
  get: () => (isPeriod(route.query.period) ? route.query.period : '30'),
  set: wanted => void router.replace({ query: { ...route.query, period: wanted === '30' ? undefined : wanted } }),
})
const periodNames: Record<Period, string> = {
  '30': t('thirtyDays'),
  '90': t('ninetyDays'),
  '365': t('aYear'),
  all: t('all'),
}
const periodChoices = Object.keys(periods).map(value => ({ value, name: periodNames[value as Period] }))
/** Stands for all of them in the choice. */
const everyEpisode = 'all'
const episode = computed({
  get: () => (typeof route.query.episode === 'string' ? route.query.episode : everyEpisode),
  set: (wanted: string) =>
    void router.replace({ query: { ...route.query, episode: wanted === everyEpisode ? undefined : wanted } }),
})
const episodeChoices = computed(() => [
  { id: everyEpisode, name: t('allEpisodes') },
  ...episodes.value.map(each => ({ id: each.id, name: nameOf(each) })),
])

const filter = computed(() => ({
  ...daysOf(period.value, currentMoment()),
  ...(episode.value !== everyEpisode && { episode: episode.value }),
}))
watch(filter, wanted => attempt(() => store.load(show.value.id, wanted)), { immediate: true })

const steps = computed(() => (numbers.value ? stepsOf(numbers.value) : []))
const isByWeek = computed(() => steps.value.some(({ from, to }) => from !== to))
const labels = computed(() => steps.value.map(({ from }) => dayInYear(from, 'utc')))
const lines = computed(() => [{ name: t('downloads'), values: steps.value.map(({ downloads }) => downloads) }])
const marks = computed(() =>
  (numbers.value?.marks ?? []).flatMap(({ day, words }) => {
    const at = steps.value.findIndex(({ from, to }) => day >= from && day <= to)
    return at < 0 ? [] : [{ at, words }]
  }),
)
const range = computed(() =>
  numbers.value
    ? t('fromDayToDay', { from: shortDay(numbers.value.from, 'utc'), to: shortDay(numbers.value.to, 'utc') })
    : '',
)
const summary = computed(() => {
  const best = steps.value.toSorted((one, other) => other.downloads - one.downloads)[0]
  return best && best.downloads > 0
    ? t('chartSummary', {
        total: whole(numbers.value!.total),
        range: range.value,
        most: whole(best.downloads),
        day: shortDay(best.from, 'utc'),
      })
    : t('nothingYet')
})

/** The lines of these figures that one name stands for. */
const behind = (more: Record<string, string>): RouteLocationRaw => ({
  name: 'numbers-lines',
  params: { show: props.show },
  query: { ...filter.value, ...more },
})
const byName = <Row extends { name: string; downloads: number }>(
  rows: readonly Row[],
  naming: (name: string) => string,
  to: (name: string) => RouteLocationRaw | undefined,
) => rows.map(({ name, downloads }) => ({ name: naming(name), downloads, to: to(name) }))
const sources = computed(() =>
  (numbers.value?.sources ?? [])
    .toSorted((one, other) => other.downloads - one.downloads)
    .map(({ source, downloads }: { source: Source; downloads: number }) => ({
      name: sourceNames[source],
      downloads,
      to: behind({ source }),
    })),
)
const refused = computed(() =>
  (numbers.value?.refusals ?? [])
    .toSorted((one, other) => other.listeners - one.listeners)
    .map(({ refusal, listeners }) => ({
      name: refusalWords[refusal],
      downloads: listeners,
      to: behind({ what: refusal }),
    })),
)
const refusedTotal = computed(() => refused.value.reduce((sum, { downloads }) => sum + downloads, 0))
</script>

<template>
  <PageLayout :heading="t('numbers')" width="wide" :waits-for="!numbers && !problem && t('theNumbers')">
    <template #beside>
      <SelectButton
        v-model="period"
        :options="periodChoices"
        option-label="name"
        option-value="value"
        size="small"
        :allow-empty="false"
        :aria-label="t('period')"
      />
      <Select
        v-model="episode"
        class="episode"
        :options="episodeChoices"
        option-label="name"
        option-value="id"
        size="small"
        filter
        :aria-label="t('whichEpisodes')"
        @filter="({ value }) => find(value)"
      />
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="isBeforeFirst && numbers?.total === 0" class="quiet">{{ t('nothingReleasedYet') }}</p>
    <template v-else-if="numbers">
      <p class="total" :aria-busy="busy">
        <RouterLink class="figures" :to="behind({})">{{ whole(numbers.total) }}</RouterLink>
        {{ t('countDownloads', { count: numbers.total }) }}
        <span class="quiet small">{{ range }}</span>
      </p>
      <p class="quiet small">
        <template v-if="numbers.state.countedAt && numbers.state.completeTo">{{
          t('countedTo', {
            at: shortMoment(numbers.state.countedAt, show.zone),
            day: shortDay(numbers.state.completeTo, 'utc'),
          })
        }}</template>
        <template v-else>{{ t('notCountedYet') }}</template>
        <template v-if="numbers.state.coarseUntil && numbers.state.coarseUntil >= numbers.from">
          {{ t('coarseUntil', { day: shortDay(numbers.state.coarseUntil, 'utc') }) }}</template
        >
      </p>
      <ChartFigure
        :title="isByWeek ? t('byWeek') : t('byDay')"
        :summary="summary"
        :labels="labels"
        :lines="lines"
        :marks="marks"
        :axis="isByWeek ? t('weekFrom') : t('dayUtc')"
        :dated="`${show.name}, ${range}`"
      />
      <DayMarks :show="show" :marks="numbers.marks" />
      <div class="columns">
        <FigureRows
          :heading="t('apps')"
          :rows="
            byName(
              numbers.apps.rows,
              name => name,
              name => behind({ app: name }),
            )
          "
          :few="numbers.apps.few"
          :total="numbers.total"
        />
        <FigureRows
          :heading="t('places')"
          :hint="numbers.state.placesMadeAt ? t('placesHint') : t('placesMissing')"
          :rows="byName(numbers.places.rows, placeName, () => undefined)"
          :few="numbers.places.few"
          :total="numbers.total"
        />
        <FigureRows
          :heading="t('devices')"
          :rows="
            byName(
              numbers.devices.rows,
              name => deviceNames[name as Device],
              name => behind({ device: name }),
            )
          "
          :few="numbers.devices.few"
          :total="numbers.total"
        />
        <FigureRows :heading="t('whereFrom')" :rows="sources" :total="numbers.total" />
      </div>
      <WeekHours
        v-if="numbers.hours && numbers.localHours && numbers.total > 0"
        :hours="numbers.hours"
        :local-hours="numbers.localHours"
        :zone="show.zone"
      />
      <section v-if="numbers.byEpisodeAge && numbers.total > 0" class="spaced gap-2">
        <h2 class="text-l">{{ t('newAndOld') }}</h2>
        <p>
          {{
            t('newAndOldTell', {
              recent: whole(numbers.byEpisodeAge.recent),
              recentShare: share(numbers.byEpisodeAge.recent, numbers.total),
              older: whole(numbers.byEpisodeAge.older),
              gone: numbers.total - numbers.byEpisodeAge.recent - numbers.byEpisodeAge.older,
            })
          }}
        </p>
      </section>
      <SubscribersChart v-if="numbers.subscribers" :days="numbers.subscribers" :show-name="show.name" :range="range" />
      <FigureRows :heading="t('notCounted')" :hint="t('notCountedHint')" :rows="refused" :total="refusedTotal" />
      <p class="actions small">
        <a v-for="form in ['csv', 'json'] as const" :key="form" :href="store.fileOf(show.id, form, filter)" download>{{
          t('downloadAs', { form: form.toUpperCase() })
        }}</a>
      </p>
      <CountingFacts :state="numbers.state" />
    </template>
  </PageLayout>
</template>

<style scoped>
.episode {
  max-width: 18rem;
}
.total {
  font-size: var(--text-l);
}
.total .figures {
  font-family: var(--serif);
  font-size: var(--text-2xl);
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 22rem), 1fr));
  gap: var(--space-5) var(--space-6);
}
</style>
