<script setup lang="ts">
import MultiSelect from 'primevue/multiselect'
import { computed, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { comparedAges, type EpisodeComparison, mostCompared } from '@contract/numbers'
import { useAttempt } from '../../platform/parts/attempt'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { shortDay } from '../../platform/time/times'
import { useShows } from '../../show/shows/shows'
import ChartFigure from '../charts/ChartFigure.vue'
import type { Line } from '../charts/chart'
import { t } from './messages'
import { useNumbers } from './numbers'
import { nameOf, useReleased } from './released'
import { whole } from './words'

/** Episodes at the same age, side by side: what each had after so many days. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const store = useNumbers()
const route = useRoute()
const router = useRouter()
const show = computed(() => shows.bySlug(props.show)!)
const { episodes, isBeforeFirst, find } = useReleased(() => show.value.id)
const comparison = shallowRef<EpisodeComparison | null>(null)
const { problem, attempt } = useAttempt(t('numbersStillHere'))
const atFirst = 4

const chosen = computed<string[]>({
  get: () =>
    typeof route.query.episodes === 'string'
      ? route.query.episodes.split(',').filter(Boolean)
      : episodes.value.slice(0, atFirst).map(({ id }) => id),
  set: ids => void router.replace({ query: { ...route.query, episodes: ids.join(',') } }),
})
const choices = computed(() => episodes.value.map(each => ({ id: each.id, name: nameOf(each) })))
watch(
  chosen,
  ids =>
    ids.length > 0 &&
    attempt(async () => {
      const loaded = await store.compare(show.value.id, ids)
      if (ids === chosen.value) comparison.value = loaded
    }),
  { immediate: true },
)

/** Lines differ by their dashes and points, and bear their names. */
const dashes = [[], [8, 4], [2, 3], [10, 3, 2, 3], [5, 5], [1, 5]]
const points = ['circle', 'rect', 'triangle', 'rectRot', 'cross', 'star'] as const
const days = computed(() => Math.max(0, ...(comparison.value?.episodes ?? []).map(({ curve }) => curve.length)))
const labels = computed(() => Array.from({ length: days.value }, (_, n) => String(n + 1)))
const lines = computed<Line[]>(() =>
  (comparison.value?.episodes ?? []).map((each, n) => ({
    name: nameOf(each),
    short: each.number === null ? each.title.split(' ')[0]! : String(each.number),
    values: labels.value.map((_, day) => each.curve[day] ?? null),
    dash: dashes[n]!,
    point: points[n]!,
  })),
)
const summary = computed(() =>
  (comparison.value?.episodes ?? []).map(each => t('hadInAll', { name: nameOf(each), count: each.total })).join(' '),
)
</script>

<template>
  <PageLayout
    :heading="t('sideBySide')"
    width="wide"
    :waits-for="!comparison && !problem && episodes.length > 0 && t('theNumbers')"
  >
    <template #purpose>{{ t('sideBySideHint') }}</template>
    <div class="field">
      <label for="compared">{{ t('whichEpisodes') }}</label>
      <MultiSelect
        v-model="chosen"
        input-id="compared"
        :options="choices"
        option-label="name"
        option-value="id"
        filter
        :selection-limit="mostCompared"
        :show-toggle-all="false"
        :placeholder="t('chooseEpisodes', { count: mostCompared })"
        @filter="({ value }) => find(value)"
      />
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="isBeforeFirst" class="quiet">{{ t('nothingReleasedYet') }}</p>
    <template v-else-if="comparison && chosen.length > 0">
      <ChartFigure
        v-if="days > 0"
        :title="t('atTheSameAge')"
        :summary="summary"
        :labels="labels"
        :lines="lines"
        :axis="t('dayOfItsAge')"
        :dated="`${show.name}, ${shortDay(new Date(), show.zone)}`"
      />
      <div class="scrolls" tabindex="0" role="region" :aria-label="t('atTheSameAge')">
        <table :aria-label="t('atTheSameAge')">
          <thead>
            <tr>
              <th scope="col">{{ t('episode') }}</th>
              <th scope="col">{{ t('released') }}</th>
              <th v-for="age in comparedAges" :key="age" scope="col" class="figures">
                {{ t('afterDaysShort', { count: age }) }}
              </th>
              <th scope="col" class="figures">{{ t('inAllShort') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="each in comparison.episodes" :key="each.id">
              <th scope="row">
                <RouterLink
                  :to="{ name: 'numbers', params: { show: show.slug }, query: { episode: each.id, period: 'all' } }"
                  >{{ nameOf(each) }}</RouterLink
                >
              </th>
              <td class="whitespace-nowrap">{{ shortDay(each.releasedAt, show.zone) }}</td>
              <td v-for="(downloads, n) in each.after" :key="n" class="figures">
                <template v-if="downloads !== null">{{ whole(downloads) }}</template>
                <span v-else class="quiet">{{ t('notYet') }}</span>
              </td>
              <td class="figures">{{ whole(each.total) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="quiet small">{{ t('agesInUtcDays') }}</p>
    </template>
  </PageLayout>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: var(--space-2) var(--space-3) var(--space-2) 0;
  border-block-end: 1px solid var(--edge);
  font-weight: 400;
  text-align: start;
}
th[scope='row'] {
  min-width: 10rem;
}
th a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
}
.figures {
  text-align: end;
}
</style>
