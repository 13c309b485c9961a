<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, reactive, ref, watch } from 'vue'
import type { TableRow } from '@contract/table'
import type { BulkEditQuery } from '@contract/bulkEdits'
import type { Person } from '@core/episode/fields'
import PeopleField from '../../words/writing/PeopleField.vue'
import TagsField from '../../words/writing/TagsField.vue'
import { type ActName, acts, changeOf, type Filled, type LaidOut } from './acts'
import LayoutFields from './LayoutFields.vue'
import WholeNumber from '../../platform/parts/WholeNumber.vue'
import { t } from './messages'

/** What to do with the episodes that are chosen; nothing happens before it was looked at. */
const props = defineProps<{
  rows: readonly TableRow[]
  busy: boolean
  tags: readonly string[]
  people: readonly Person[]
  /** The day of the next open slot, where the show has a rhythm. */
  nextSlot: string | null
  today: string
}>()
const emit = defineEmits<{ look: [episodes: BulkEditQuery['episodes'], change: BulkEditQuery['change']]; none: [] }>()

const picked = ref<ActName | null>(null)
/** Until one is picked: drafts mostly want dates. */
const act = computed<ActName>({
  get: () => picked.value ?? (props.rows.every(({ status }) => status === 'draft') ? 'lay out' : 'add tags'),
  set: name => (picked.value = name),
})
const numbers = computed(() => props.rows.map(({ number }) => number).filter(number => number !== null))
const filled = reactive<Filled>({ tags: [], people: [], season: null, explicit: null, from: null, laid: begun() })
function begun(): LaidOut {
  const hasRhythm = props.nextSlot !== null
  return {
    way: 'from',
    day: props.nextSlot ?? props.today,
    apart: hasRhythm ? 'slots' : 'days',
    weekdays: ['MO'],
    every: 7,
    time: '06:00',
    order: 'number',
  }
}
watch(
  () => props.nextSlot,
  () => Object.assign(filled.laid, begun()),
)
const first = computed(() => filled.from ?? Math.min(...numbers.value, 99_999))
const from = computed({
  get: () => (numbers.value.length > 0 || filled.from !== null ? first.value : 1),
  set: (number: number | null) => (filled.from = number),
})
const change = computed(() => changeOf(act.value, { ...filled, from: from.value }))

const choices = computed(() =>
  Object.entries(acts)
    .filter(([name]) => name !== 'renumber on' || props.rows.length === 1)
    .map(([value, name]) => ({ value, name })),
)
const explicitChoices = [
  { name: t('asTheShow'), value: null },
  { name: t('no'), value: false },
  { name: t('yes'), value: true },
]

function look(): void {
  if (!change.value) return
  const [one] = props.rows
  emit('look', act.value === 'renumber on' ? { from: one!.id } : props.rows.map(({ id }) => id), change.value)
}
</script>

<template>
  <section class="bar flowing" :aria-label="t('whatToDoWithThem')">
    <p class="figures">
      <strong>{{ t('countChosen', { count: rows.length }) }}</strong>{{ ' ' }}
      <button type="button" class="small-button" @click="emit('none')">{{ t('none') }}</button>
    </p>
    <Select v-model="act" :options="choices" option-label="name" option-value="value" :aria-label="t('whatToDo')" />
    <div class="filled">
      <LayoutFields v-if="act === 'lay out'" v-model="filled.laid" :has-rhythm="nextSlot !== null" />
      <TagsField
        v-else-if="act === 'add tags' || act === 'remove tags'"
        v-model="filled.tags"
        :used="tags"
        :usual="[]"
        :label="t('whichTags')"
      />
      <PeopleField
        v-else-if="act === 'add people' || act === 'remove people'"
        v-model="filled.people"
        :known="people"
      />
      <WholeNumber
        v-else-if="act === 'season'"
        id="act-season"
        v-model="filled.season"
        :label="t('season')"
        :max="9999"
        :placeholder="t('noSeason')"
      />
      <SelectButton
        v-else-if="act === 'explicit'"
        v-model="filled.explicit"
        :options="explicitChoices"
        option-label="name"
        option-value="value"
        :allow-empty="false"
        :aria-label="t('explicit')"
        size="small"
      />
      <WholeNumber
        v-else-if="act === 'renumber' || act === 'renumber on'"
        id="act-from"
        v-model="from"
        :label="t('firstNumber')"
        :max="99999"
        :hint="t('inOrderOfRelease')"
      />
    </div>
    <Button :label="t('previewTheChanges')" :disabled="!change" :loading="busy" @click="look" />
  </section>
</template>

<style scoped>
.bar {
  gap: var(--space-2) var(--space-4);
  padding: var(--space-2) var(--space-5);
  background: var(--sheet);
  border-top: 1px solid var(--edge);
  box-shadow: var(--shade);
}
.filled {
  flex: 1 1 18rem;
  min-width: 0;
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2);
  align-items: center;
}
</style>
