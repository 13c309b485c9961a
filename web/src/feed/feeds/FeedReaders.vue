<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import type { FeedReader } from '@contract/feed'
import type { Show } from '@contract/shows'
import { shortMoment } from '../../platform/time/times'
import { t } from './messages'

/** Who fetched the feed of late, and whether they have what it is now. */
defineProps<{ readers: FeedReader[]; show: Show }>()
const got = ({ status }: FeedReader): string =>
  status === 200 ? t('receivedAll') : status === 304 ? t('receivedUnchanged') : t('receivedError', { status })
</script>

<template>
  <p v-if="readers.length === 0" class="quiet">
    {{ t('noReaders') }}
  </p>
  <DataTable v-else :value="readers" :table-props="{ 'aria-label': t('whoFetchesIt') }" size="small" data-key="agent">
    <Column :header="t('who')">
      <template #body="{ data }">
        {{ data.agent }} <span class="small quiet">{{ t('readerFrom', { address: data.address }) }}</span>
      </template>
    </Column>
    <Column :header="t('lastFetch')">
      <template #body="{ data }"
        ><span class="tabular-nums whitespace-nowrap">{{ shortMoment(data.lastAt, show.zone) }}</span></template
      >
    </Column>
    <Column :header="t('received')">
      <template #body="{ data }">{{ got(data) }}</template>
    </Column>
    <Column :header="t('hasTheNewest')">
      <template #body="{ data }">{{ data.hasNewest ? t('yes') : t('notYet') }}</template>
    </Column>
    <Column :header="t('fetches')">
      <template #body="{ data }"
        ><span class="tabular-nums whitespace-nowrap">{{ data.wholeCount + data.sameCount }}</span></template
      >
    </Column>
  </DataTable>
</template>
