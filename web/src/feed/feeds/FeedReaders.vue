<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import type { FeedReader } from '@contract/feed'
import type { Show } from '@contract/shows'
import { shortMoment } from '../../platform/time/times'

/** Who fetched the feed of late, and whether they have what it is now. */
defineProps<{ readers: FeedReader[]; show: Show }>()
const got = ({ status }: FeedReader): string =>
  status === 200 ? 'all of it' : status === 304 ? 'that nothing had changed' : `an error (${status})`
</script>

<template>
  <p v-if="readers.length === 0" class="quiet">
    Nobody has fetched it yet. Directories fetch it once it is submitted to them, apps when somebody subscribes.
  </p>
  <DataTable v-else :value="readers" :table-props="{ 'aria-label': 'Who fetches it' }" size="small" data-key="agent">
    <Column header="Who">
      <template #body="{ data }">
        {{ data.agent }} <span class="small quiet">from {{ data.address }}</span>
      </template>
    </Column>
    <Column header="Last fetch">
      <template #body="{ data }"
        ><span class="tabular-nums whitespace-nowrap">{{ shortMoment(data.lastAt, show.zone) }}</span></template
      >
    </Column>
    <Column header="Received">
      <template #body="{ data }">{{ got(data) }}</template>
    </Column>
    <Column header="Has the newest">
      <template #body="{ data }">{{ data.hasNewest ? 'Yes' : 'Not yet' }}</template>
    </Column>
    <Column header="Fetches">
      <template #body="{ data }"
        ><span class="tabular-nums whitespace-nowrap">{{ data.wholeCount + data.sameCount }}</span></template
      >
    </Column>
  </DataTable>
</template>
