<script setup lang="ts">
import { useTemplateRef } from 'vue'
import type { BulkEditHistory } from '@contract/bulkEdits'
import SmallOverlay from '../../platform/parts/SmallOverlay.vue'
import { dayAndTime } from '../../platform/time/times'
import { t } from './messages'

/** What was done to many before, each with the way back. */
defineProps<{ made: BulkEditHistory['changes']; zone: string; busy: boolean }>()
const emit = defineEmits<{ 'take-back': [id: string] }>()
const list = useTemplateRef('list')

const names: Readonly<Record<BulkEditHistory['changes'][number]['kind'], string>> = {
  'add tags': t('tagsAdded'),
  'remove tags': t('tagsRemoved'),
  'merge tags': t('tagsMerged'),
  'add people': t('peopleAdded'),
  'remove people': t('peopleRemoved'),
  'merge people': t('peopleMerged'),
  season: t('seasonSet'),
  explicit: t('explicitSet'),
  renumber: t('renumbered'),
  'to draft': t('returnedToDraft'),
  remove: t('removed'),
  'lay out': t('datesSet'),
  'dates by number': t('datesByNumber'),
  'minute apart': t('movedAMinuteApart'),
}
function takeBack(id: string): void {
  list.value!.hide()
  emit('take-back', id)
}
</script>

<template>
  <button type="button" class="small-button" aria-haspopup="dialog" @click="event => list!.toggle(event)">
    {{ t('earlierBulkChanges') }}
  </button>
  <SmallOverlay ref="list" :label="t('earlierBulkChanges')">
    <ul class="made small unlisted spaced">
      <li v-for="{ id, kind, changed, at } in made" :key="id">
        <span class="figures quiet">{{ dayAndTime(at, zone) }}</span>
        <span>{{ names[kind] }}, {{ t('countEpisodes', { count: changed }) }}</span>
        <button type="button" class="small-button" :disabled="busy" @click="takeBack(id)">{{ t('undo') }}</button>
      </li>
    </ul>
  </SmallOverlay>
</template>

<style scoped>
.made li {
  display: grid;
  grid-template-columns: 8rem minmax(0, 1fr) auto;
  gap: var(--space-3);
}
</style>
