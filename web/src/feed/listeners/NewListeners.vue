<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { computed, ref } from 'vue'
import { newListeners, type NewListeners } from '@contract/listeners'
import { faultsOf } from '../../platform/parts/checked'
import FormField from '../../platform/parts/FormField.vue'
import { t } from './messages'

/** Gives people an address of their own: a name a line. `to` is what there is to hear: the show, where it is private, and its private strands. */
const props = defineProps<{ to: readonly { id: string | null; name: string }[]; busy: boolean }>()
const emit = defineEmits<{ add: [wanted: NewListeners] }>()
const names = ref('')
/** The choice has a word for the whole show, since nothing is no choice to it. */
const wholeShow = 'show'
const chosen = ref<string>()
const fault = ref('')
const lines = computed(() =>
  names.value
    .split('\n')
    .map(line => line.trim())
    .filter(Boolean),
)
const choices = computed(() => props.to.map(({ id, name }) => ({ value: id ?? wholeShow, name })))
const hears = computed(() => chosen.value ?? choices.value[0]!.value)
const words = computed(() => t('createAddresses', { count: lines.value.length || 1 }))

async function add(): Promise<void> {
  const wanted = { names: lines.value, strandId: hears.value === wholeShow ? null : hears.value }
  const [found] = await faultsOf(newListeners, wanted)
  const at = /^names\.(\d+)/.exec(found?.field ?? '')?.[1]
  fault.value = found ? `${at ? `“${lines.value[Number(at)]}”: ` : ''}${found.rule}` : ''
  if (!found) emit('add', wanted)
}
defineExpose({
  clear: () => {
    names.value = ''
  },
})
</script>

<template>
  <form class="form boxed" novalidate @submit.prevent="add">
    <FormField v-slot="{ id }" :label="t('who')" :hint="t('listenersHint')" :fault="fault">
      <Textarea :id="id" v-model="names" rows="3" :invalid="!!fault" :placeholder="t('listenerPlaceholder')" />
    </FormField>
    <FormField v-if="to.length > 1" v-slot="{ id }" :label="t('hears')">
      <Select
        :label-id="id"
        :aria-labelledby="`${id}-name`"
        :model-value="hears"
        :options="choices"
        option-label="name"
        option-value="value"
        @update:model-value="value => (chosen = value)"
      />
    </FormField>
    <Button type="submit" :label="words" :loading="busy" />
  </form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: var(--space-3) var(--space-5);
  align-items: start;
  justify-items: start;
  padding: var(--space-4);
}
.form > :deep(.field) {
  width: 100%;
}
.form > button {
  grid-column: 1;
}
@media (max-width: 40rem) {
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
