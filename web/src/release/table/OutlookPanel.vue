<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import Dialog from 'primevue/dialog'
import { computed } from 'vue'
import type { BulkEditPreview } from '@contract/bulkEdits'
import { steps } from '@core/release/status'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import type { ShownProblem } from '../../platform/parts/problems'
import { FormattedMessage, t } from './messages'

/** What a change of many would make of each, before it is made. */
const props = defineProps<{
  outlook: BulkEditPreview | null
  problem: ShownProblem | null
  busy: boolean
  /** Whether their order can be changed here. */
  isOrdered?: boolean
}>()
const emit = defineEmits<{ make: []; leave: []; order: [ids: string[]] }>()
/** Another place for one of them, or for the one that was dragged. */
function moved(from: number, to: number): void {
  const ids = props.outlook!.changes.map(({ id }) => id)
  const [id] = ids.splice(from, 1)
  ids.splice(to, 0, id!)
  emit('order', ids)
}

const changing = computed(() => props.outlook?.changes.length ?? 0)
</script>

<template>
  <Dialog
    :visible="outlook !== null"
    modal
    :header="t('whatWillChange')"
    :style="{ width: 'min(52rem, 96vw)' }"
    @update:visible="emit('leave')"
  >
    <template v-if="outlook">
      <ProblemNote v-if="problem" :problem="problem" />
      <p v-if="changing === 0">{{ t('nothingWouldChange') }}</p>
      <p v-if="outlook.atOnce" class="note needs-you">
        <FormattedMessage of="atOnce" :values="{ count: outlook.atOnce }" />
      </p>
      <p v-if="outlook.redated" class="note">
        <FormattedMessage of="redated" :values="{ count: outlook.redated }" /> {{ steps.redate.effect }}
      </p>
      <DataTable
        v-if="changing > 0"
        class="small outlook"
        :table-props="{ 'aria-label': t('whatChanges') }"
        :value="outlook.changes"
        data-key="id"
        size="small"
        scrollable
        :scroll-height="`min(50vh, ${changing * 38 + 44}px)`"
        :virtual-scroller-options="{ itemSize: 38, numToleratedItems: 10 }"
        @row-reorder="({ dragIndex, dropIndex }) => moved(dragIndex, dropIndex)"
      >
        <Column v-if="isOrdered" row-reorder :style="{ width: '2.5rem' }">
          <template #header
            ><span class="out-of-sight">{{ t('drag') }}</span></template
          >
        </Column>
        <Column v-if="isOrdered" :header="t('place')" :style="{ width: '7.5rem' }">
          <template #body="{ data, index }"
            ><span class="places figures side-by-side"
              >{{ index + 1
              }}<button
                type="button"
                class="small-button"
                :disabled="index === 0 || busy"
                :aria-label="t('moveEarlier', { title: data.title })"
                @click="moved(index, index - 1)"
              >
                ↑</button
              ><button
                type="button"
                class="small-button"
                :disabled="index === changing - 1 || busy"
                :aria-label="t('moveLater', { title: data.title })"
                @click="moved(index, index + 1)"
              >
                ↓
              </button></span
            ></template
          >
        </Column>
        <Column field="title" :header="t('episode')">
          <template #body="{ data }">{{ data.title || t('untitledEpisode') }}</template>
        </Column>
        <Column field="before" :header="t('now')" class="figures">
          <template #body="{ data }"
            ><span :title="data.before">{{ data.before || '–' }}</span></template
          >
        </Column>
        <Column field="after" :header="t('then')" class="figures">
          <template #body="{ data }"
            ><strong :title="data.after">{{ data.after || '–' }}</strong></template
          >
        </Column>
      </DataTable>
      <p v-if="outlook.same" class="quiet small">{{ t('sameAlready', { count: outlook.same }) }}</p>
      <template v-if="outlook.refused.length">
        <h3>{{ t('leftAsTheyAre') }}</h3>
        <ul class="refused small">
          <li v-for="{ id, title, why } in outlook.refused" :key="id">
            {{ title || t('untitledEpisode') }}: <span class="quiet">{{ why }}</span>
          </li>
        </ul>
      </template>
    </template>
    <template #footer>
      <Button :label="t('cancel')" text @click="emit('leave')" />
      <Button
        v-if="changing"
        :label="t('changeEpisodes', { count: changing })"
        :loading="busy"
        autofocus
        @click="emit('make')"
      />
    </template>
  </Dialog>
</template>

<style scoped>
.outlook :deep(table) {
  table-layout: fixed;
}
.outlook :deep(td) {
  height: 38px;
  overflow: hidden;
  padding-block: 0;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.places button {
  min-width: 24px;
  min-height: 24px;
}
h3 {
  margin-block: var(--space-3) var(--space-1);
  font: 600 var(--text-m) / 1.3 var(--sans);
}
.refused {
  max-height: 20vh;
  margin: 0;
  overflow-y: auto;
}
</style>
