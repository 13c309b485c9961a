<script setup lang="ts">
import { X } from '@lucide/vue'
import IconButton from './IconButton.vue'
import { t } from './messages'
/** A row about a place in the sound: its number, which plays it, what can be set, and what is to be said of it. */
defineProps<{ place: number; kind: 'chapter' | 'soundbite'; title: string; says: readonly string[]; fault: string }>()
const emit = defineEmits<{ hear: []; remove: [] }>()
</script>

<template>
  <li class="row spaced">
    <button
      type="button"
      class="place figures"
      :aria-label="t('playPlace', { place: `${kind} ${place}`, title })"
      :title="t('play')"
      @click="emit('hear')"
    >
      {{ place }}
    </button>
    <slot />
    <IconButton :name="t('removeNamed', { name: title || `${kind} ${place}` })" :icon="X" @click="emit('remove')" />
    <slot name="below" />
    <p v-for="words in says" :key="words" class="below small quiet">{{ words }}</p>
    <p v-if="fault" class="fault below text-signal" role="alert">{{ fault }}</p>
  </li>
</template>

<style scoped>
.row {
  gap: var(--space-1) var(--space-2);
  align-items: center;
  padding-block: 3px;
  border-bottom: 1px solid var(--edge);
}
.place {
  width: max(28px, var(--target));
  height: max(28px, var(--target));
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 50%;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
.chosen .place {
  border-color: var(--accent);
  background: var(--accent-wash);
}
.heard .place {
  border-color: var(--accent);
  background: var(--accent);
  color: var(--on-accent);
}
.below {
  grid-column: 2 / -1;
}
</style>
