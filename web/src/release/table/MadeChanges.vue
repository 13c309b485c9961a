<script setup lang="ts">
import { useTemplateRef } from 'vue'
import type { BulkEditHistory } from '@contract/bulkEdits'
import SmallOverlay from '../../platform/parts/SmallOverlay.vue'
import { dayAndTime } from '../../platform/time/times'

/** What was done to many before, each with the way back. */
defineProps<{ made: BulkEditHistory['changes']; zone: string; busy: boolean }>()
const emit = defineEmits<{ 'take-back': [id: string] }>()
const list = useTemplateRef('list')

const names: Readonly<Record<BulkEditHistory['changes'][number]['kind'], string>> = {
  'add tags': 'Tags added',
  'remove tags': 'Tags removed',
  'merge tags': 'Tag spellings made the same',
  'add people': 'People added',
  'remove people': 'People removed',
  'merge people': 'Name spellings made the same',
  season: 'Season set',
  explicit: 'Explicit set',
  renumber: 'Renumbered',
  'to draft': 'Returned to draft',
  remove: 'Removed',
  'lay out': 'Dates set',
  'dates by number': 'Dates put in the order of numbers',
  'minute apart': 'Moved a minute apart',
}
function takeBack(id: string): void {
  list.value!.hide()
  emit('take-back', id)
}
</script>

<template>
  <button type="button" class="small-button" aria-haspopup="dialog" @click="event => list!.toggle(event)">
    Earlier bulk changes
  </button>
  <SmallOverlay ref="list" label="Earlier bulk changes">
    <ul class="made small unlisted spaced">
      <li v-for="{ id, kind, changed, at } in made" :key="id">
        <span class="figures quiet">{{ dayAndTime(at, zone) }}</span>
        <span>{{ names[kind] }}, {{ changed }} {{ changed === 1 ? 'episode' : 'episodes' }}</span>
        <button type="button" class="small-button" :disabled="busy" @click="takeBack(id)">Undo</button>
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
