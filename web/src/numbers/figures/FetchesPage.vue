<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { type ListenerList, listenerQuery } from '@contract/numbers'
import { clock } from '@core/words/amounts'
import { useAttempt } from '../../platform/parts/attempt'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { shortDay, timeToTheSecond } from '../../platform/time/times'
import { useShows } from '../../show/shows/shows'
import { t } from './messages'
import { useNumbers } from './numbers'
import { deviceNames, refusalWords, sourceNames, whole } from './words'

/** What a figure was made from: a row for each listener, episode and day, which opens to its fetches. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const store = useNumbers()
const route = useRoute()
const show = computed(() => shows.bySlug(props.show)!)
const list = shallowRef<ListenerList | null>(null)
const opened = ref<ListenerList['listeners']>([])
const { problem, busy, attempt } = useAttempt(t('numbersStillHere'))

/** What of the address is a filter; the rest of it is another page’s. */
const filter = computed(() => {
  const { from, to, episode, what, app, device, source } = route.query
  const read = listenerQuery.safeParse({ from, to, episode, what, app, device, source })
  return read.success ? read.data : listenerQuery.parse({})
})
const rowsAtOnce = 50
/** Shows more rows. Where they are few among many they come in several answers, each of which is shown as it comes. */
const more = (): Promise<boolean> =>
  attempt(async () => {
    const asked = filter.value
    const wanted = (list.value?.listeners.length ?? 0) + rowsAtOnce
    let found = list.value
    do {
      const next = await store.listenersBehind(show.value.id, found?.next ? { ...asked, after: found.next } : asked)
      if (asked !== filter.value) return
      found = { ...next, listeners: [...(found?.listeners ?? []), ...next.listeners] }
      // That there are none is known when all was looked through.
      if (found.listeners.length > 0 || !found.next) list.value = found
    } while (found.next && found.listeners.length < wanted)
  })
watch(
  filter,
  () => {
    list.value = null
    opened.value = []
    void more()
  },
  { immediate: true },
)

/** Of the days before, only sums are left. */
const isPartlyGone = computed(
  () => list.value?.keptSince != null && (filter.value.from === undefined || filter.value.from < list.value.keptSince),
)
const what = computed(() => {
  const { from, to, what: of, app, device, source } = filter.value
  const parts = [
    of === 'downloads' ? t('countedOnes') : refusalWords[of],
    ...(from && to ? [t('fromDayToDay', { from: shortDay(from, 'utc'), to: shortDay(to, 'utc') })] : []),
    ...(app === undefined ? [] : [app]),
    ...(device === undefined ? [] : [deviceNames[device]]),
    ...(source === undefined ? [] : [sourceNames[source]]),
  ]
  return parts.join(' · ')
})
const asked = ({ range, bytesSent }: ListenerList['listeners'][number]['lines'][number]): string =>
  [
    range ? t('bytesFromTo', { from: whole(range[0]), to: whole(range[1]) }) : t('theWholeFile'),
    bytesSent === null ? t('sentUnknown') : t('bytesSent', { count: bytesSent }),
  ].join(', ')
</script>

<template>
  <PageLayout :heading="t('fetches')" width="wide" :waits-for="!list && !problem && t('theFetches')">
    <template #purpose>{{ t('fetchesHint') }}</template>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="list">
      <p>
        <strong>{{ what }}</strong>{{ ' ' }}{{ t('listenersBehind', { count: list.total }) }}
      </p>
      <p v-if="isPartlyGone" class="quiet small">
        {{ t('keptSince', { day: shortDay(list.keptSince!, 'utc') }) }}
      </p>
      <div class="scrolls" tabindex="0" role="region" :aria-label="t('fetches')">
        <DataTable
          v-model:expanded-rows="opened"
          :value="list.listeners"
          data-key="key"
          size="small"
          :table-props="{ 'aria-label': t('fetches') }"
        >
          <template #empty>{{ list.total === 0 ? t('nothingYet') : t('noFetches') }}</template>
          <Column expander style="width: 3rem"
            ><template #header
              ><span class="out-of-sight">{{ t('singleFetches') }}</span></template
            ></Column
          >
          <Column :header="t('dayUtc')">
            <template #body="{ data }"
              ><span class="figures whitespace-nowrap">{{ shortDay(data.day, 'utc') }}</span></template
            >
          </Column>
          <Column :header="t('episode')" field="title" />
          <Column :header="t('app')">
            <template #body="{ data }"
              >{{ data.app }} <span class="quiet small">{{ deviceNames[data.device as 'phone'] }}</span></template
            >
          </Column>
          <Column :header="t('origin')">
            <template #body="{ data }">{{ sourceNames[data.source as 'feed'] }}</template>
          </Column>
          <Column :header="t('soundFetched')">
            <template #body="{ data }"
              ><span class="figures">{{ data.seconds === null ? '–' : clock(data.seconds * 1000) }}</span></template
            >
          </Column>
          <Column :header="t('countedAs')">
            <template #body="{ data }">{{
              data.refusal === null ? t('yes') : refusalWords[data.refusal as 'robot']
            }}</template>
          </Column>
          <template #expansion="{ data }">
            <ul class="unlisted lines">
              <li v-for="(line, n) in data.lines" :key="n" class="flowing small">
                <span class="figures">{{ timeToTheSecond(line.at, 'utc') }}</span>
                <span>{{ line.method }} {{ line.status }}</span>
                <span>{{ asked(line) }}</span>
                <span v-if="line.times > 1">{{ t('timesInARow', { count: line.times }) }}</span>
              </li>
              <li v-if="data.fetches > data.lines.length" class="quiet small">
                {{ t('moreLikeThese', { count: data.fetches - data.lines.length }) }}
              </li>
            </ul>
          </template>
        </DataTable>
      </div>
      <p v-if="list.next" class="actions">
        <Button :label="t('showMore')" size="small" outlined :loading="busy" @click="more" />
      </p>
    </template>
  </PageLayout>
</template>

<style scoped>
.lines {
  display: grid;
  gap: var(--space-1);
  padding-inline-start: var(--space-6);
}
</style>
