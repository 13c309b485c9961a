<script setup lang="ts">
import { shallowRef, watch } from 'vue'
import type { OrderFindings } from '@contract/order'
import type { Show } from '@contract/shows'
import { useShows } from '../../show/shows/shows'
import OutlookPanel from '../table/OutlookPanel.vue'
import { useTable } from '../table/table'
import { shortMoment } from '../../platform/time/times'
import { locale } from '../../platform/messages'
import { FormattedMessage, t } from './messages'

/** Where dates and numbers disagree, or several go out at one moment: both are shown, and the mend is offered. */
const props = defineProps<{ show: Show }>()
const shows = useShows()
const table = useTable()
const order = shallowRef<OrderFindings | null>(null)
watch(
  () => [props.show.id, shows.near] as const,
  async () => {
    order.value = await shows.order().catch(() => order.value)
  },
  { immediate: true },
)
type Finding = OrderFindings['findings'][number]
const shown = 2
const named = ({ number, title }: Finding['episodes'][number]): string =>
  number === null ? title : `${number} ${title}`
const list = new Intl.ListFormat(locale)
const allNamed = ({ episodes, count }: Finding): string =>
  list.format([
    ...episodes.map(each => `“${named(each)}”`),
    ...(count > episodes.length ? [t('othersMore', { count: count - episodes.length })] : []),
  ])

const fix = ({ kind, fix: ids }: Finding): Promise<void> =>
  table.look(props.show.id, ids, { kind: kind === 'same moment' ? 'minute apart' : 'dates by number' })
async function make(): Promise<void> {
  await table.make(props.show.id)
  await shows.loadEpisodes()
}
</script>

<template>
  <div v-if="order?.total" class="notes spaced">
    <div v-for="finding in order.findings.slice(0, shown)" :key="finding.fix.join()" class="note">
      <p v-if="finding.kind === 'out of order'">
        <FormattedMessage
          of="datedAfter"
          :values="{
            one: named(finding.episodes[0]!),
            other: named(finding.episodes[1]!),
            oneAt: shortMoment(finding.episodes[0]!.at, show.zone),
            otherAt: shortMoment(finding.episodes[1]!.at, show.zone),
          }"
        />{{ ' ' }}
        <button type="button" class="small-button" @click="fix(finding)">
          {{ t('putInOrder') }}
        </button>
      </p>
      <p v-else>
        <FormattedMessage
          of="haveSameMoment"
          :values="{ episodes: allNamed(finding), moment: shortMoment(finding.episodes[0]!.at, show.zone) }"
        />{{ ' ' }}
        <button type="button" class="small-button" @click="fix(finding)">{{ t('moveApart') }}</button>
      </p>
    </div>
    <p v-if="order.total > shown" class="small quiet">{{ t('moreLikeThis', { count: order.total - shown }) }}</p>
    <OutlookPanel
      :outlook="table.looked?.outlook ?? null"
      :problem="table.problem"
      :busy="table.busy"
      @make="make"
      @leave="table.leave()"
    />
  </div>
</template>
