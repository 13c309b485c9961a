<script setup lang="ts">
import type { Preview } from '@contract/preview'
import { t } from './messages'

/** The tags that players read in the file, which are written when it is finished. */
defineProps<{ tags: Preview['tags'] }>()
</script>

<template>
  <table :aria-label="t('tagsOfTheFile')" class="small">
    <caption class="quiet">
      {{
        t('fileTagsHint')
      }}
    </caption>
    <tbody>
      <tr v-for="({ frame, name, value, isInherited }, at) in tags" :key="at">
        <th scope="row" class="figures font-semibold whitespace-nowrap">{{ name }}</th>
        <td dir="auto">
          {{ value }}<span v-if="isInherited" class="quiet"> {{ t('fromTheShow') }}</span>
        </td>
        <td class="quiet">{{ frame }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
caption {
  padding-block-end: var(--space-2);
  text-align: start;
}
th,
td {
  padding: var(--space-1) var(--space-2) var(--space-1) 0;
  border-top: 1px solid var(--edge);
  text-align: start;
  vertical-align: top;
  overflow-wrap: anywhere;
}
</style>
