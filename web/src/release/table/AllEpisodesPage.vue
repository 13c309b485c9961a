<script setup lang="ts">
import Button from 'primevue/button'
import { storeToRefs } from 'pinia'
import { until } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type TableQuery, tableQuery, type TableRow } from '@contract/table'
import type { BulkEdit } from '@core/episode/bulkEdit'
import { wallTime } from '@core/release/moment'
import { onNews } from '../../platform/news/news'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../../show/shows/shows'
import { currentMoment } from '../../platform/time/now'
import { useVocabulary } from '../../show/shows/vocabulary'
import ActBar from './ActBar.vue'
import { readColumns, type TableColumn, writeColumns } from './columns'
import MadeChanges from './MadeChanges.vue'
import OutlookPanel from './OutlookPanel.vue'
import SpellingsNote from './SpellingsNote.vue'
import { useTable } from './table'
import TableFilters from './TableFilters.vue'
import TableRows from './TableRows.vue'
import { locale } from '../../platform/messages'
import { t } from './messages'

/** All episodes of a show: found, narrowed, ordered, and changed many at once. What is asked for stands in the address. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const vocabulary = useVocabulary()
const table = useTable()
const { rows, total, shownQuery, looked, after, isEmptied, made, problem, busy } = storeToRefs(table)
const route = useRoute()
const router = useRouter()
const show = computed(() => shows.bySlug(props.show)!)
const selection = ref<TableRow[]>([])

const asked = tableQuery.omit({ from: true, limit: true }).partial()
const query = computed<Partial<TableQuery>>({
  get: () => {
    // An address that was kept from before calls the status `standing`.
    const { standing: status, ...rest } = route.query
    const given: Record<string, unknown> = { ...(status && { status }), ...rest }
    // What somebody wrote into the address and means nothing is as if it were not there.
    const parts = Object.entries(given).filter(([name, value]) => asked.safeParse({ [name]: value }).success)
    const { success, data } = asked.safeParse(Object.fromEntries(parts))
    return success ? Object.fromEntries(Object.entries(data).filter(([name]) => given[name] !== undefined)) : {}
  },
  set: wanted => go({ ...wanted, columns: route.query.columns as string | undefined }),
})
const chosen = computed<TableColumn[]>({
  get: () => [...readColumns(route.query.columns)],
  set: columns => go({ ...query.value, columns: writeColumns(columns) }),
})
function go(wanted: Record<string, string | number | undefined>): void {
  const set = Object.entries(wanted).filter(([, value]) => value !== undefined && value !== '')
  void router.replace({ query: Object.fromEntries(set.map(([name, value]) => [name, String(value)])) })
}

let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => JSON.stringify(query.value),
  (_now, before) => {
    clearTimeout(timer)
    // Whoever types is not asked for at every letter.
    timer = setTimeout(() => void table.load(show.value.id, query.value), before === undefined ? 0 : 150)
  },
  { immediate: true },
)
/** The table, its filters and what stands beside the heading come together, so that none moves another one. */
const isReady = ref(false)
onMounted(async () => {
  await Promise.allSettled([vocabulary.load(show.value.id), table.loadMade(show.value.id)])
  await until(() => Boolean(rows.value ?? problem.value)).toBe(true)
  isReady.value = true
})
const nextSlot = ref<string | null>(null)
onMounted(async () => {
  const [next] = await shows.nextSlots(1).catch(() => [])
  nextSlot.value = next?.local.slice(0, 10) ?? null
})
onNews(
  ({ kind, showId }) => showId === show.value.id && kind === 'episode',
  async () => {
    await Promise.all([table.refresh(), vocabulary.load(show.value.id)])
  },
  10_000,
)
// Chosen are rows that are still there, as they are now.
watch(rows, now => {
  const ids = new Set(selection.value.map(({ id }) => id))
  if (ids.size > 0) selection.value = (now ?? []).filter(({ id }) => ids.has(id))
})

async function takeBack(id: string, episodes?: string[]): Promise<void> {
  await table.takeBack(show.value.id, id, episodes)
  await table.loadMade(show.value.id).catch(() => undefined)
}
const count = (number: number): string => number.toLocaleString(locale)
const isNarrowed = computed(() =>
  (['find', 'status', 'season', 'kind', 'tag', 'lacks'] as const).some(name => query.value[name] !== undefined),
)
const look = (episodes: string[] | 'all' | { from: string }, change: BulkEdit): Promise<void> =>
  table.look(show.value.id, episodes, change)
async function make(): Promise<void> {
  await table.make(show.value.id)
  if (looked.value) return
  selection.value = []
  await table.loadMade(show.value.id).catch(() => undefined)
}
</script>

<template>
  <section class="all">
    <div class="spaced pt-4 px-5 pb-3">
      <header class="head flowing-text gap-x-4 gap-y-1">
        <h1>{{ t('episodes') }}</h1>
        <p v-if="rows" class="quiet figures" role="status">
          <template v-if="total === 0 && isNarrowed">{{ t('noneFound') }}</template><template v-else>{{
            isNarrowed ? t('episodesFound', { count: total }) : t('countEpisodes', { count: total })
          }}</template>
        </p>
        <p v-if="after && 'done' in after" class="side-by-side gap-3 ms-auto" role="status">
          {{ t('countChanged', { count: count(after.done.changed) }) }}
          <Button
            v-if="selection.length"
            :label="
              selection.length === 1 ? t('undoChosenOne') : t('undoCountChosen', { count: count(selection.length) })
            "
            size="small"
            outlined
            :loading="busy"
            @click="
              takeBack(
                after.done.id,
                selection.map(({ id }) => id),
              )
            "
          />
          <Button :label="t('undoAll')" size="small" outlined :loading="busy" @click="takeBack(after.done.id)" />
        </p>
        <p v-else-if="after" class="side-by-side gap-3 ms-auto" role="status">
          {{ t('countAsBefore', { count: after.takenBack.changed }) }}
          <template v-if="after.takenBack.left.length">
            {{
              t('noteLeft', {
                left: after.takenBack.left.map(({ title, why }) => `${title || t('untitled')} (${why})`).join(' '),
              })
            }}
          </template>
        </p>
        <MadeChanges v-if="isReady && made.length" :made="made" :zone="show.zone" :busy="busy" @take-back="takeBack" />
      </header>
      <template v-if="isReady">
        <TableFilters v-model="query" v-model:columns="chosen" :seasons="vocabulary.seasons" :tags="vocabulary.tags" />
        <SpellingsNote :tags="vocabulary.counted" :people="vocabulary.people" @look="change => look('all', change)" />
      </template>
      <ProblemNote v-if="problem && !looked" :problem="problem" />
    </div>
    <LoadingShape v-if="!isReady" class="px-5" :what="t('theEpisodes')" :lines="12" />
    <TableRows
      v-if="rows && isReady"
      v-model:selection="selection"
      :show="show"
      :rows="rows"
      :query="query"
      :are-removed="shownQuery.status === 'removed'"
      :chosen="chosen"
      @order="(order, direction) => (query = { ...query, order, direction })"
      @restore="table.restore"
    >
      <template #empty>
        <p v-if="isNarrowed" class="p-5 text-m">
          {{ isEmptied ? t('allChanged') : t('noneMatchFilters') }}
          <button type="button" class="small-button" @click="query = {}">{{ t('showAllEpisodes') }}</button>
        </p>
        <p v-else class="p-5 text-m">{{ t('noEpisodesHint') }}</p>
      </template>
    </TableRows>
    <ActBar
      v-if="selection.length && shownQuery.status !== 'removed'"
      :rows="selection"
      :busy="busy && !looked"
      :tags="vocabulary.tags"
      :people="vocabulary.people"
      :next-slot="nextSlot"
      :today="wallTime(currentMoment(), show.zone).slice(0, 10)"
      @look="look"
      @none="selection = []"
    />
    <OutlookPanel
      :outlook="looked?.outlook ?? null"
      :problem="problem"
      :busy="busy"
      :is-ordered="looked?.look.change.kind === 'lay out'"
      @make="make"
      @order="ids => table.reorder(show.id, ids)"
      @leave="table.leave()"
    />
  </section>
</template>

<style scoped>
.all {
  display: flex;
  flex: 1 1 0;
  flex-direction: column;
  min-height: 0;
}
/* What is said of a change comes and goes with its buttons. */
.head {
  min-height: 3rem;
}
</style>
