<script setup lang="ts">
import InputText from 'primevue/inputtext'
import MultiSelect from 'primevue/multiselect'
import Select from 'primevue/select'
import { computed } from 'vue'
import { type Lack, type TableQuery, tableStatuses } from '@contract/table'
import { columns as known, type TableColumn, tableColumns } from './columns'
import { t } from './messages'

/** What the table is narrowed to, and which columns it has. */
const query = defineModel<Partial<TableQuery>>({ required: true })
const chosen = defineModel<TableColumn[]>('columns', { required: true })
const props = defineProps<{ seasons: readonly number[]; tags: readonly string[] }>()

const statusNames: Readonly<Record<(typeof tableStatuses)[number], string>> = {
  draft: t('drafts'),
  scheduled: t('scheduled'),
  released: t('released'),
  retired: t('retired'),
  changed: t('unpublishedChanges'),
  removed: t('removedDrafts'),
}
const lackNames: Readonly<Record<Lack, string>> = {
  audio: t('noAudio'),
  title: t('noTitle'),
  number: t('noNumber'),
  hook: t('noHook'),
  notes: t('noNotes'),
  tags: t('fewerThanTwoTags'),
  people: t('noPeople'),
}
const kinds = { full: t('full'), trailer: t('trailer'), bonus: t('bonus') } as const
const choicesOf = (names: Readonly<Record<string, string>>) =>
  Object.entries(names).map(([value, name]) => ({ value, name }))

const filters = computed(() => [
  { field: 'status', name: t('status'), options: choicesOf(statusNames) },
  { field: 'lacks', name: t('missing'), options: choicesOf(lackNames) },
  {
    field: 'season',
    name: t('season'),
    options: props.seasons.map(value => ({ value, name: t('seasonNumber', { number: value }) })),
  },
  { field: 'kind', name: t('kind'), options: choicesOf(kinds) },
  { field: 'tag', name: t('tag'), options: props.tags.map(value => ({ value, name: value })) },
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
      :placeholder="t('searchPlaceholder')"
      :aria-label="t('searchHint')"
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
      :selected-items-label="t('columns')"
      :placeholder="t('columns')"
      :aria-label="t('columns')"
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
