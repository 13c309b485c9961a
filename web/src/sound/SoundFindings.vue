<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { Finding } from '@contract/sound'

/** What was found in the sound, the gravest first; what is only good to know is folded away. */
const props = defineProps<{ findings: readonly Finding[]; busy: boolean }>()
const emit = defineEmits<{ mend: [finding: Finding]; hear: [finding: Finding] }>()

const urgent = computed(() => props.findings.filter(({ weight }) => weight !== 'good to know'))
const others = computed(() => props.findings.filter(({ weight }) => weight === 'good to know'))
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
    <li v-for="finding in urgent" :key="finding.code" :data-finding="finding.code">
      <details>
        <summary>
          <strong>{{ finding.says }}</strong>
        </summary>
        <p class="small">
          <span class="weight">{{ finding.weight }}:</span> {{ finding.ifItStays }}
          <span class="quiet">{{ finding.rule }}</span>
        </p>
      </details>
      <Button
        v-if="finding.mend"
        type="button"
        size="small"
        text
        :label="mends[finding.mend]"
        :disabled="busy"
        @click="emit('mend', finding)"
      />
      <Button
        v-else-if="finding.places.length"
        type="button"
        size="small"
        text
        label="Hear it"
        @click="emit('hear', finding)"
      />
    </li>
  </ul>
  <details v-if="others.length" class="small">
    <summary class="quietly">
      Good to know: {{ others.length === 1 ? others[0]!.says : `${others.length} things` }}
    </summary>
    <ul class="plain">
      <li v-for="finding in others" :key="finding.code" :data-finding="finding.code">
        <template v-if="others.length > 1"
          ><strong>{{ finding.says }}</strong
          >&nbsp;</template
        >{{ finding.ifItStays }} <span class="quiet">{{ finding.rule }}</span>&nbsp;
        <button v-if="finding.mend" type="button" class="link-button" :disabled="busy" @click="emit('mend', finding)">
          {{ mends[finding.mend] }}
        </button>
        <button v-else-if="finding.places.length" type="button" class="link-button" @click="emit('hear', finding)">
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
