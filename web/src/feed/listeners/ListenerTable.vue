<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed, ref } from 'vue'
import type { Listener } from '@contract/listeners'
import CopyButton from '../../platform/parts/CopyButton.vue'
import { shortMoment } from '../../platform/time/times'
import { vOpened } from '../../platform/parts/opened'
import { FormattedMessage, t } from './messages'

/** Who has an address of their own: to what, whether an app fetches it, and what can be done about each. */
const props = defineProps<{
  listeners: readonly Listener[]
  /** What a strand is called; null for the whole show. */
  nameOf: (strandId: string | null) => string
  zone: string
  busy: boolean
}>()
const emit = defineEmits<{ renew: [id: string]; withdraw: [id: string]; restore: [id: string] }>()
/** Whose address somebody is about to change. */
const renewing = ref<string | null>(null)
const all = computed(() =>
  props.listeners
    .filter(({ withdrawnAt }) => withdrawnAt === null)
    .map(({ name, address }) => `${name}\t${address}`)
    .join('\n'),
)
function renew(id: string): void {
  renewing.value = null
  emit('renew', id)
}
</script>

<template>
  <div class="listeners spaced">
    <DataTable
      :value="[...listeners]"
      :table-props="{ 'aria-label': t('addresses') }"
      size="small"
      data-key="id"
      :paginator="listeners.length > 50"
      :rows="50"
      :row-class="data => ({ withdrawn: data.withdrawnAt !== null })"
    >
      <Column :header="t('who')" field="name" sortable>
        <template #body="{ data }">
          <span class="name wrap-anywhere">{{ data.name }}</span>
        </template>
      </Column>
      <Column :header="t('hears')">
        <template #body="{ data }">{{ nameOf(data.strandId) }}</template>
      </Column>
      <Column :header="t('lastFetched')" field="lastAt" sortable>
        <template #body="{ data }">
          <template v-if="data.withdrawnAt">
            <span class="quiet">{{ t('withdrawnAt', { moment: shortMoment(data.withdrawnAt, zone) }) }}</span>
          </template>
          <template v-else-if="data.lastAt">
            <span class="figures">{{ shortMoment(data.lastAt, zone) }}</span>
            <span class="small quiet">{{ t('fetchedBy', { agent: data.agent }) }}</span>
          </template>
          <span v-else class="quiet">{{ t('notFetchedYet') }}</span>
        </template>
      </Column>
      <Column :header="t('address')">
        <template #body="{ data }">
          <span class="small flex flex-wrap gap-x-3 gap-y-1">
            <button
              v-if="data.withdrawnAt"
              type="button"
              class="small-button"
              :disabled="busy"
              @click="emit('restore', data.id)"
            >
              <FormattedMessage of="reactivateFor" :values="{ name: data.name }"
                ><template #unseen="{ words }"
                  ><span class="out-of-sight">{{ words }}</span></template
                ></FormattedMessage
              >
            </button>
            <span v-else-if="renewing === data.id" v-opened="() => (renewing = null)" class="actions">
              <span>{{ t('addressWillEnd') }}</span>
              <button type="button" class="small-button" :disabled="busy" @click="renew(data.id)">
                {{ t('createAnother') }}
              </button>
              <button type="button" class="small-button" @click="renewing = null">{{ t('cancel') }}</button>
            </span>
            <template v-else>
              <CopyButton :text="data.address" :about="t('addressOf', { name: data.name })" />
              <button type="button" class="small-button" @click="renewing = data.id">
                <FormattedMessage of="renewFor" :values="{ name: data.name }"
                  ><template #unseen="{ words }"
                    ><span class="out-of-sight">{{ words }}</span></template
                  ></FormattedMessage
                >
              </button>
              <button type="button" class="small-button" :disabled="busy" @click="emit('withdraw', data.id)">
                <FormattedMessage of="withdrawFrom" :values="{ name: data.name }"
                  ><template #unseen="{ words }"
                    ><span class="out-of-sight">{{ words }}</span></template
                  ></FormattedMessage
                >
              </button>
            </template>
          </span>
        </template>
      </Column>
    </DataTable>
    <p v-if="listeners.length > 1" class="small quiet">
      <CopyButton :text="all" :words="t('copyAll')" />{{ t('copyAllHint') }}
    </p>
  </div>
</template>

<style scoped>
.listeners :deep(.withdrawn .name) {
  text-decoration: line-through;
}
@media (max-width: 480px) {
  .listeners :deep(:is(th, td)) {
    padding-inline: var(--space-1);
  }
}
</style>
