<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { Finding } from '@core/audio/findings'
import { findingWords } from '@core/audio/findingWords'

/** What was found in the sound, the gravest first; what is only good to know is folded away. */
const props = defineProps<{ findings: readonly Finding[]; busy: boolean }>()
const emit = defineEmits<{ mend: [finding: Finding]; hear: [finding: Finding] }>()

const told = computed(() => props.findings.map(finding => ({ finding, ...finding, ...findingWords(finding) })))
const urgent = computed(() => told.value.filter(({ weight }) => weight !== 'good to know'))
const others = computed(() => told.value.filter(({ weight }) => weight === 'good to know'))
const mends: Readonly<Record<NonNullable<Finding['mend']>, string>> = {
  finish: 'Finish it',
  trim: 'Trim',
  level: 'Even it out',
  mono: 'Make it mono',
  'one side': 'Take the left side',
}
</script>

<template>
  <ul v-if="urgent.length" class="findings note needs-you">
    <li v-for="found in urgent" :key="found.code" :data-finding="found.code">
      <details>
        <summary>
          <strong>{{ found.says }}</strong>
        </summary>
        <p class="small">
          <span class="weight">{{ found.weight }}:</span> {{ found.ifItStays }}
          <span class="quiet">{{ found.rule }}</span>
        </p>
      </details>
      <Button
        v-if="found.mend"
        type="button"
        size="small"
        text
        :label="mends[found.mend]"
        :disabled="busy"
        @click="emit('mend', found.finding)"
      />
      <Button
        v-else-if="found.places.length"
        type="button"
        size="small"
        text
        label="Hear it"
        @click="emit('hear', found.finding)"
      />
    </li>
  </ul>
  <details v-if="others.length" class="small">
    <summary class="quietly">
      Good to know: {{ others.length === 1 ? others[0]!.says : `${others.length} things` }}
    </summary>
    <ul class="plain">
      <li v-for="found in others" :key="found.code" :data-finding="found.code">
        <template v-if="others.length > 1"
          ><strong>{{ found.says }}</strong
          >&nbsp;</template
        >{{ found.ifItStays }} <span class="quiet">{{ found.rule }}</span>&nbsp;
        <button
          v-if="found.mend"
          type="button"
          class="link-button"
          :disabled="busy"
          @click="emit('mend', found.finding)"
        >
          {{ mends[found.mend] }}
        </button>
        <button v-else-if="found.places.length" type="button" class="link-button" @click="emit('hear', found.finding)">
          Hear it
        </button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.findings {
  list-style: none;
  margin: 0;
  padding: var(--space-1) var(--space-2) var(--space-1) var(--space-3);
}
.findings li {
  display: flex;
  gap: var(--space-3);
  align-items: flex-start;
}
.findings li + li {
  border-top: 1px solid color-mix(in srgb, var(--signal) 22%, transparent);
}
.findings details {
  flex: 1;
  min-width: 0;
  padding-block: 0.4rem;
}
.findings :deep(.p-button) {
  flex: none;
  padding-block: 0.3rem;
}
.weight {
  font-weight: 600;
}
.plain {
  margin: var(--space-1) 0 0;
  padding-left: 1.1em;
  display: grid;
  gap: var(--space-1);
}
summary {
  cursor: pointer;
  min-height: 24px;
}
.quietly {
  color: var(--accent);
}
</style>
