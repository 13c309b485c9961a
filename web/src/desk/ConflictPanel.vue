<script setup lang="ts">
import Button from 'primevue/button'
import type { Field } from '@core/episode/field'
import { type EpisodeField, type EpisodeText, fields as known } from '@core/episode/fields'

/** Two windows changed the same field: both texts, and the choice. */
defineProps<{ fields: readonly EpisodeField[]; mine: EpisodeText; theirs: EpisodeText }>()
const emit = defineEmits<{ settle: [field: EpisodeField, keep: 'mine' | 'theirs'] }>()
const shown = (field: EpisodeField, text: EpisodeText): string =>
  (known[field] as Field).shown(text[field]) || '(empty)'
</script>

<template>
  <section class="note needs-you" role="alert">
    <h3>Another window changed this episode too</h3>
    <p>Both texts are kept. Choose which one stays.</p>
    <div v-for="field in fields" :key="field" class="pair">
      <div>
        <p class="field-name">The {{ known[field].name }} in this window</p>
        <blockquote>{{ shown(field, mine) }}</blockquote>
        <Button label="Keep this one" size="small" @click="emit('settle', field, 'mine')" />
      </div>
      <div>
        <p class="field-name">The {{ known[field].name }} saved by the other window</p>
        <blockquote>{{ shown(field, theirs) }}</blockquote>
        <Button label="Take that one" size="small" outlined @click="emit('settle', field, 'theirs')" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--space-4);
  margin-top: var(--space-3);
}
blockquote {
  margin: var(--space-1) 0 var(--space-2);
  padding: var(--space-2) var(--space-3);
  background: var(--sheet);
  border-radius: var(--round);
  font-family: var(--serif);
  overflow-wrap: anywhere;
  white-space: pre-line;
  max-height: 9rem;
  overflow-y: auto;
}
</style>
