<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { Finding } from '@core/audio/findings'
import { findingWords } from '@core/audio/findingWords'
import { severityNames } from '@core/words/severity'
import FoldPanel from '../../platform/parts/FoldPanel.vue'
import { t } from './messages'

/** What was found in the sound, the gravest first; notes are folded away. */
const props = defineProps<{ findings: readonly Finding[]; busy: boolean }>()
const emit = defineEmits<{ fix: [finding: Finding]; hear: [finding: Finding] }>()

const told = computed(() => props.findings.map(finding => ({ finding, ...finding, ...findingWords(finding) })))
const urgent = computed(() => told.value.filter(({ severity }) => severity !== 'note'))
const others = computed(() => told.value.filter(({ severity }) => severity === 'note'))
const fixes: Readonly<Record<NonNullable<Finding['fix']>, string>> = {
  finish: t('finishTheAudio'),
  trim: t('trim'),
  level: t('evenItOut'),
  mono: t('makeItMono'),
  'one side': t('takeTheLeftSide'),
}
</script>

<template>
  <ul v-if="urgent.length" class="findings note needs-you">
    <li v-for="found in urgent" class="flex gap-3 items-start" :key="found.code" :data-finding="found.code">
      <FoldPanel class="found">
        <template #line
          ><strong>{{ found.says }}</strong></template
        >
        <p class="small">
          <span class="font-semibold">{{ severityNames[found.severity] }}:</span> {{ found.ifItStays }}
          <span class="quiet">{{ found.rule }}</span>
        </p>
      </FoldPanel>
      <Button
        v-if="found.fix"
        type="button"
        size="small"
        text
        :label="fixes[found.fix]"
        :disabled="busy"
        @click="emit('fix', found.finding)"
      />
      <Button
        v-else-if="found.places.length"
        type="button"
        size="small"
        text
        :label="t('playIt')"
        @click="emit('hear', found.finding)"
      />
    </li>
  </ul>
  <FoldPanel v-if="others.length" class="small quietly">
    <template #line>{{
      others.length === 1 ? t('noteSays', { words: others[0]!.says }) : t('countNotes', { count: others.length })
    }}</template>
    <ul class="plain spaced">
      <li v-for="found in others" :key="found.code" :data-finding="found.code">
        <template v-if="others.length > 1"
          ><strong>{{ found.says }}</strong
          >&nbsp;</template
        >{{ found.ifItStays }} <span class="quiet">{{ found.rule }}</span>&nbsp;
        <button
          v-if="found.fix"
          type="button"
          class="small-button"
          :disabled="busy"
          @click="emit('fix', found.finding)"
        >
          {{ fixes[found.fix] }}
        </button>
        <button v-else-if="found.places.length" type="button" class="small-button" @click="emit('hear', found.finding)">
          {{ t('playIt') }}
        </button>
      </li>
    </ul>
  </FoldPanel>
</template>

<style scoped>
.findings {
  list-style: none;
  margin: 0;
  padding: var(--space-1) var(--space-2) var(--space-1) var(--space-3);
}
.findings li + li {
  border-top: 1px solid color-mix(in srgb, var(--signal) 22%, transparent);
}
.found p {
  padding-inline-start: 1.05em;
}
.found {
  flex: 1;
  min-width: 0;
  padding-block: 0.4rem;
}
.findings :deep(.p-button) {
  flex: none;
  padding-block: 0.3rem;
}
.plain {
  margin: var(--space-1) 0 0;
  padding-left: 1.1em;
  gap: var(--space-1);
}
.quietly :deep(.fold-line) {
  color: var(--accent);
}
</style>
