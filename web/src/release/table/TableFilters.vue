<script setup lang="ts">
import InputText from 'primevue/inputtext'
import MultiSelect from 'primevue/multiselect'
import Select from 'primevue/select'
import { computed } from 'vue'
import { type Lack, type TableQuery, tableStatuses } from '@contract/table'
import { columns as known, type TableColumn, tableColumns } from './columns'

/** What the table is narrowed to, and which columns it has. */
const query = defineModel<Partial<TableQuery>>({ required: true })
const chosen = defineModel<TableColumn[]>('columns', { required: true })
const props = defineProps<{ seasons: readonly number[]; tags: readonly string[] }>()

const statusNames: Readonly<Record<(typeof tableStatuses)[number], string>> = {
  draft: 'Drafts',
  scheduled: 'Scheduled',
  released: 'Released',
  retired: 'Retired',
  changed: 'Unpublished changes',
  removed: 'Removed drafts',
}
const lackNames: Readonly<Record<Lack, string>> = {
  audio: 'No audio',
  title: 'No title',
  number: 'No number',
  hook: 'No hook',
  notes: 'No notes',
  tags: 'Fewer than two tags',
  people: 'No people',
}
const kinds = { full: 'Full', trailer: 'Trailer', bonus: 'Bonus' } as const
const choicesOf = (names: Readonly<Record<string, string>>) =>
  Object.entries(names).map(([value, name]) => ({ value, name }))

const filters = computed(() => [
  { field: 'status', name: 'Status', options: choicesOf(statusNames) },
  { field: 'lacks', name: 'Missing', options: choicesOf(lackNames) },
  { field: 'season', name: 'Season', options: props.seasons.map(value => ({ value, name: `Season ${value}` })) },
  { field: 'kind', name: 'Kind', options: choicesOf(kinds) },
  { field: 'tag', name: 'Tag', options: props.tags.map(value => ({ value, name: value })) },
])
const narrow = (field: string, value: unknown): void => {
  query.value = { ...query.value, [field]: value || undefined }
}
const columnChoices = tableColumns.map(value => ({ value, name: known[value].name }))
</script>

<template>
  <form class="filters flowing" role="search" @submit.prevent>
    <InputText
      class="find"
      type="search"
      :model-value="query.find ?? ''"
      placeholder="Words or a number"
      aria-label="Search titles, notes, tags and people"
      @update:model-value="words => narrow('find', words)"
    />
    <Select
      v-for="{ field, name, options } in filters.filter(each => each.options.length > 0)"
      :key="field"
      :class="{ set: query[field as keyof TableQuery] !== undefined }"
      :model-value="query[field as keyof TableQuery] ?? null"
      :options="options"
      option-label="name"
      option-value="value"
      :placeholder="name"
      :aria-label="name"
      show-clear
      :filter="options.length > 12"
      size="small"
      @update:model-value="value => narrow(field, value)"
    />
    <MultiSelect
      v-model="chosen"
      :options="columnChoices"
      option-label="name"
      option-value="value"
      :show-toggle-all="false"
      :max-selected-labels="0"
      selected-items-label="Columns"
      placeholder="Columns"
      aria-label="Columns"
      size="small"
    />
  </form>
</template>

<style scoped>
.find {
  flex: 1 1 10rem;
  max-width: 20rem;
}
.set {
  border-color: var(--accent);
  background: var(--accent-wash);
}
</style>
