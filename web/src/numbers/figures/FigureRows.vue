<script setup lang="ts">
import { computed } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { t } from './messages'
import { share, whole } from './words'

/** Figures by name, the highest first, with a bar for each; each leads to what it was made from, where it does not tell who somebody is. */
const props = defineProps<{
  heading: string
  rows: readonly { name: string; downloads: number; to?: RouteLocationRaw | undefined }[]
  few?: { names: number; downloads: number | null } | null
  total: number
  hint?: string
}>()
const most = 8
const shownRows = computed(() => props.rows.slice(0, most))
const rest = computed(() => props.rows.slice(most))
const highest = computed(() => Math.max(1, ...props.rows.map(({ downloads }) => downloads)))
</script>

<template>
  <section class="figure-rows">
    <h2 class="text-l">{{ heading }}</h2>
    <p v-if="hint" class="quiet small">{{ hint }}</p>
    <p v-if="rows.length === 0 && !few" class="quiet">{{ t('nothingYet') }}</p>
    <table v-else :aria-label="heading">
      <tbody>
        <tr v-for="{ name, downloads, to } in shownRows" :key="name">
          <th scope="row">
            <RouterLink v-if="to" :to="to">{{ name }}</RouterLink>
            <template v-else>{{ name }}</template>
            <span class="bar" :style="{ inlineSize: `${(downloads / highest) * 100}%` }" aria-hidden="true" />
          </th>
          <td class="figures">{{ whole(downloads) }}</td>
          <td class="figures quiet">{{ share(downloads, total) }}</td>
        </tr>
        <tr v-if="rest.length > 0">
          <th scope="row" class="quiet">{{ t('countOthers', { count: rest.length }) }}</th>
          <td class="figures">{{ whole(rest.reduce((sum, { downloads }) => sum + downloads, 0)) }}</td>
          <td />
        </tr>
        <tr v-if="few">
          <th scope="row" class="quiet">{{ t('fewEach', { count: few.names }) }}</th>
          <td class="figures">{{ few.downloads === null ? t('fewerThanFive') : whole(few.downloads) }}</td>
          <td />
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  position: relative;
  padding: var(--space-1) var(--space-2) calc(var(--space-1) + 5px) 0;
  font-weight: 400;
  text-align: start;
  overflow-wrap: anywhere;
}
th a {
  display: inline-flex;
  align-items: center;
  min-width: var(--target);
  min-height: var(--target);
}
td {
  width: 1%;
  padding: var(--space-1) 0 var(--space-1) var(--space-3);
  text-align: end;
  white-space: nowrap;
}
.bar {
  position: absolute;
  inset-block-end: 2px;
  inset-inline-start: 0;
  block-size: 4px;
  background: var(--accent);
}
@media (forced-colors: active) {
  .bar {
    background: CanvasText;
  }
}
</style>
