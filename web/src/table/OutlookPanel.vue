<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import Dialog from 'primevue/dialog'
import { computed } from 'vue'
import type { TogetherOutlook } from '@contract/together'
import ProblemNote from '../parts/ProblemNote.vue'
import type { Told } from '../parts/problems'

/** What a change of many would make of each, before it is made. */
const props = defineProps<{ outlook: TogetherOutlook | null; problem: Told | null; busy: boolean }>()
const emit = defineEmits<{ make: []; leave: [] }>()
const episodes = (count: number): string => `${count.toLocaleString('en-GB')} ${count === 1 ? 'episode' : 'episodes'}`
const changing = computed(() => props.outlook?.changes.length ?? 0)
</script>

<template>
  <Dialog
    :visible="outlook !== null"
    modal
    header="What will change"
    :style="{ width: 'min(52rem, 96vw)' }"
    @update:visible="emit('leave')"
  >
    <template v-if="outlook">
      <ProblemNote v-if="problem" :problem="problem" />
      <p v-if="changing === 0">Nothing would change.</p>
      <DataTable
        v-else
        class="small outlook"
        :value="outlook.changes"
        data-key="id"
        size="small"
        scrollable
        :scroll-height="`min(50vh, ${changing * 38 + 44}px)`"
        :virtual-scroller-options="{ itemSize: 38, numToleratedItems: 10 }"
      >
        <Column field="title" header="Episode">
          <template #body="{ data }">{{ data.title || 'Untitled episode' }}</template>
        </Column>
        <Column field="before" header="Now" class="figures">
          <template #body="{ data }"
            ><span :title="data.before">{{ data.before || '–' }}</span></template
          >
        </Column>
        <Column field="after" header="Then" class="figures">
          <template #body="{ data }"
            ><strong :title="data.after">{{ data.after || '–' }}</strong></template
          >
        </Column>
      </DataTable>
      <p v-if="outlook.same" class="quiet small">{{ episodes(outlook.same) }} have it so already.</p>
      <template v-if="outlook.refused.length">
        <h3>Left as they are</h3>
        <ul class="refused small">
          <li v-for="{ id, title, why } in outlook.refused" :key="id">
            {{ title || 'Untitled episode' }}: <span class="quiet">{{ why }}</span>
          </li>
        </ul>
      </template>
    </template>
    <template #footer>
      <Button label="Leave it" text @click="emit('leave')" />
      <Button v-if="changing" :label="`Change ${episodes(changing)}`" :loading="busy" autofocus @click="emit('make')" />
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
