<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { Episode } from '@contract/episodes'
import type { Field } from '@core/episode/field'
import { type EpisodeField, type EpisodeText, fields as known } from '@core/episode/fields'
import ComparedWords from '../../show/history/ComparedWords.vue'
import { sentence, whoIs } from '../../show/history/words'
import { timeOfDay } from '../../platform/time/times'
import { t } from './messages'

/** Two windows changed the same field: who the other one is, both texts, and the choice. */
const props = defineProps<{
  fields: readonly EpisodeField[]
  mine: EpisodeText
  theirs: EpisodeText
  written: Episode['written']
  zone: string
}>()
const emit = defineEmits<{ settle: [field: EpisodeField, keep: 'mine' | 'theirs'] }>()
const shown = (field: EpisodeField, text: EpisodeText): string => (known[field] as Field).shown(text[field])
const who = computed(() => {
  const { by, at } = props.written ?? {}
  const name = by ? (by.isYou ? t('youInOtherWindow') : by.email) : t('anotherWindow')
  return at ? t('changedTooAt', { name, time: timeOfDay(at, props.zone) }) : t('changedToo', { name })
})
const theirName = computed(() =>
  props.written?.by && !props.written.by.isYou
    ? t('fromPerson', { name: whoIs(props.written.by) })
    : t('fromOtherWindow'),
)
</script>

<template>
  <section class="note needs-you" role="alert">
    <h3>{{ who }}</h3>
    <p>{{ t('bothTextsKept') }}</p>
    <div v-for="field in fields" :key="field" class="pair">
      <div>
        <p class="field-name">{{ t('fieldFromThisWindow', { field: sentence(known[field].name) }) }}</p>
        <blockquote dir="auto">{{ shown(field, mine) || t('empty') }}</blockquote>
        <Button :label="t('keepMine')" size="small" @click="emit('settle', field, 'mine')" />
      </div>
      <div>
        <p class="field-name">{{ sentence(known[field].name) }}, {{ theirName }}</p>
        <blockquote dir="auto">{{ shown(field, theirs) || t('empty') }}</blockquote>
        <Button :label="t('useTheirs')" size="small" outlined @click="emit('settle', field, 'theirs')" />
      </div>
      <details class="small col-span-full">
        <summary>{{ t('showDifferences') }}</summary>
        <p class="quiet">
          <del class="piece">{{ t('onlyTheirs') }}</del>, <ins class="piece">{{ t('onlyYours') }}</ins>
        </p>
        <ComparedWords :earlier="shown(field, theirs)" :later="shown(field, mine)" />
      </details>
    </div>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--space-2) var(--space-4);
  margin-top: var(--space-3);
}
@media (max-width: 560px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
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
