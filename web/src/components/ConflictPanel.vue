<script setup lang="ts">
import Button from 'primevue/button'
import type { EpisodeField, EpisodeText } from '@core/episode/text'

/** Two windows changed the same field: both texts, and the choice. */
defineProps<{ fields: readonly EpisodeField[]; mine: EpisodeText; theirs: EpisodeText }>()
const emit = defineEmits<{ settle: [field: EpisodeField, keep: 'mine' | 'theirs'] }>()
const names: Readonly<Record<EpisodeField, string>> = { title: 'title', number: 'number', season: 'season', kind: 'kind', notes: 'notes' }
const shown = (value: unknown): string => String(value ?? '').replace(/<[^>]+>/g, ' ').trim() || '(empty)'
</script>

<template>
  <section class="note needs-you" role="alert">
    <h3>Another window changed this episode too</h3>
    <p>Both texts are kept. Choose which one stays.</p>
    <div v-for="field in fields" :key="field" class="pair">
      <div>
        <p class="field-name">The {{ names[field] }} in this window</p>
        <blockquote>{{ shown(mine[field]) }}</blockquote>
        <Button label="Keep this one" size="small" @click="emit('settle', field, 'mine')" />
      </div>
      <div>
        <p class="field-name">The {{ names[field] }} saved by the other window</p>
        <blockquote>{{ shown(theirs[field]) }}</blockquote>
        <Button label="Take that one" size="small" outlined @click="emit('settle', field, 'theirs')" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.pair { display: grid; grid-template-columns: 1fr 1fr; gap: var(--space-4); margin-top: var(--space-3); }
blockquote { margin: var(--space-1) 0 var(--space-2); padding: var(--space-2) var(--space-3); background: var(--sheet); border-radius: var(--round); font-family: var(--serif); overflow-wrap: anywhere; max-height: 9rem; overflow-y: auto; }
</style>
