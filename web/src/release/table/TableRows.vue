<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, ref, watch } from 'vue'
import type { TableOrder, TableQuery, TableRow } from '@contract/table'
import type { Show } from '@contract/shows'
import LetterGlyph from '../../platform/parts/LetterGlyph.vue'
import { cellWords, hasFigures } from './cells'
import { columns, type TableColumn } from './columns'
import { t } from './messages'

/** The rows themselves: thousands can be scrolled through, chosen and opened. */
const selection = defineModel<TableRow[]>('selection', { required: true })
const props = defineProps<{
  show: Show
  rows: readonly TableRow[]
  query: Partial<TableQuery>
  areRemoved: boolean
  chosen: readonly TableColumn[]
}>()
const emit = defineEmits<{
  order: [order: TableQuery['order'], direction: TableQuery['direction']]
  restore: [id: string]
}>()

const order = computed(() => props.query.order ?? 'date')
const isUp = computed(() => props.query.direction === 'up')
/** The same column again turns the order round; another begins where people mostly want to begin. */
function orderBy(name: TableOrder): void {
  const begins = name === 'title' ? 'up' : 'down'
  emit('order', name, name === order.value ? (isUp.value ? 'down' : 'up') : begins)
}

/** As high as fingers need, where they are used. */
const rowHeight = matchMedia('(pointer: coarse)').matches ? 48 : 40
const box = ref<HTMLElement | null>(null)
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => box.value,
    estimateSize: () => rowHeight,
    overscan: 20,
  })),
)
const shown = computed(() => virtual.value.getVirtualItems())
const above = computed(() => shown.value[0]?.start ?? 0)
const below = computed(() => virtual.value.getTotalSize() - (shown.value.at(-1)?.end ?? 0))

watch(
  () => JSON.stringify(props.query),
  () => box.value?.scrollTo({ top: 0 }),
)

const ids = computed(() => new Set(selection.value.map(({ id }) => id)))
const isAll = computed(() => props.rows.length > 0 && ids.value.size === props.rows.length)
let last: number | null = null
/** With Shift, all from the one that was pressed last. */
function choose(at: number, isOn: boolean, isRange: boolean): void {
  const [from, to] = isRange && last !== null ? [Math.min(last, at), Math.max(last, at)] : [at, at]
  const range = props.rows.slice(from, to + 1)
  const inRange = new Set(range.map(({ id }) => id))
  const others = selection.value.filter(({ id }) => !inRange.has(id))
  selection.value = isOn ? [...others, ...range] : others
  last = at
}

/** Number and season stand before the title, as they do wherever an episode is named. */
const shownColumns = computed(() => {
  const isLeading = (name: TableColumn): boolean => name === 'number' || name === 'season'
  const [leading, others] = [props.chosen.filter(isLeading), props.chosen.filter(name => !isLeading(name))]
  return [...leading, 'title' as const, ...others]
})
const title = { name: t('title'), order: 'title', widthRem: 14.5 } as const
const heading = (name: TableColumn | 'title') => (name === 'title' ? title : columns[name])
const widthRem = computed(() => shownColumns.value.reduce((sum, name) => sum + heading(name).widthRem, 3))
const sortOf = (name: TableColumn | 'title') =>
  heading(name).order !== order.value ? undefined : isUp.value ? 'ascending' : 'descending'
</script>

<template>
  <div ref="box" class="box" tabindex="-1">
    <table
      :aria-label="t('episodes')"
      class="rows small"
      :aria-rowcount="rows.length + 1"
      :style="{ minWidth: `${widthRem}rem`, '--row': `${rowHeight}px` }"
    >
      <thead>
        <tr aria-rowindex="1">
          <th class="choice">
            <label class="pick">
              <input
                type="checkbox"
                :aria-label="t('chooseAll')"
                :checked="isAll"
                :indeterminate="!isAll && ids.size > 0"
                @change="selection = isAll ? [] : [...rows]"
              />
            </label>
          </th>
          <th
            v-for="name in shownColumns"
            :key="name"
            :style="name === 'title' ? {} : { width: `${heading(name).widthRem}rem` }"
            :aria-sort="sortOf(name)"
          >
            <button v-if="heading(name).order" type="button" @click="orderBy(heading(name).order!)">
              {{ heading(name).name
              }}<span class="way" aria-hidden="true">{{ sortOf(name) ? (isUp ? '↑' : '↓') : '' }}</span>
            </button>
            <template v-else>{{ heading(name).name }}</template>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="above > 0" aria-hidden="true" class="space" :style="{ height: `${above}px` }"></tr>
        <tr
          v-for="{ index } in shown"
          :key="rows[index]!.id"
          :aria-rowindex="index + 2"
          :class="{ chosen: ids.has(rows[index]!.id) }"
        >
          <td class="choice bg-sheet">
            <label class="pick">
              <input
                type="checkbox"
                :aria-label="t('chooseNamed', { title: rows[index]!.title || t('untitledInSentence') })"
                :checked="ids.has(rows[index]!.id)"
                @click="event => choose(index, (event.target as HTMLInputElement).checked, event.shiftKey)"
              />
            </label>
          </td>
          <td
            v-for="name in shownColumns"
            class="bg-sheet"
            :key="name"
            :class="{ figures: name !== 'title' && hasFigures(name) }"
          >
            <span
              v-if="name !== 'title'"
              class="cut one-line block"
              :title="cellWords(rows[index]!, name, show.zone)"
              >{{ cellWords(rows[index]!, name, show.zone) }}</span
            >
            <span v-else class="line side-by-side min-w-0">
              <LetterGlyph :status="rows[index]!.status" />
              <template v-if="areRemoved">
                <span class="cut one-line block">{{ rows[index]!.title || t('untitledEpisode') }}</span>
                <button type="button" class="small-button" @click="emit('restore', rows[index]!.id)">
                  {{ t('restoreIt') }}
                </button>
              </template>
              <RouterLink
                v-else
                class="cut one-line block"
                :title="rows[index]!.title"
                :to="{ name: 'desk', params: { show: show.slug, id: rows[index]!.id } }"
                >{{ rows[index]!.title || rows[index]!.arriving || t('untitledEpisode') }}</RouterLink
              >
            </span>
          </td>
        </tr>
        <tr v-if="below > 0" aria-hidden="true" class="space" :style="{ height: `${below}px` }"></tr>
      </tbody>
    </table>
    <slot v-if="rows.length === 0" name="empty" />
  </div>
</template>

<style scoped>
.box {
  flex: 1 1 0;
  min-height: 0;
  overflow: auto;
  overflow-anchor: none;
}
table {
  width: 100%;
  border-collapse: separate;
  border-spacing: 0;
  table-layout: fixed;
}
th,
td {
  height: var(--row);
  padding: 0 var(--space-2);
  border-bottom: 1px solid var(--edge);
  text-align: start;
}
th {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--paper);
  font-weight: 600;
}
th button {
  width: 100%;
  height: 100%;
  min-height: var(--target);
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: start;
  cursor: pointer;
}
th button:hover {
  color: var(--accent);
}
.way {
  margin-inline-start: 0.3em;
  color: var(--accent);
}
.chosen td {
  background: var(--accent-wash);
}
.space td {
  border: 0;
}
.choice {
  width: 3rem;
  padding-inline-start: var(--space-5);
}
.pick {
  display: grid;
  place-items: center start;
  min-width: var(--target);
  min-height: var(--target);
  cursor: pointer;
}
.choice input {
  display: block;
  width: 1.15rem;
  height: 1.15rem;
  accent-color: var(--accent);
}
.line > * {
  flex: none;
}
.line > .cut {
  flex: 0 1 auto;
}
</style>
