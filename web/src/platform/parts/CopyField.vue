<script setup lang="ts">
import CopyButton from './CopyButton.vue'

defineProps<{ label: string; text: string }>()
</script>

<template>
  <div class="copy-field spaced">
    <span class="field-name">{{ label }}</span>
    <div class="row">
      <code>{{ text }}</code>
      <CopyButton :text="text" />
    </div>
  </div>
</template>

<style scoped>
.copy-field {
  gap: var(--space-1);
}
.row {
  display: flex;
  gap: var(--space-3);
  align-items: baseline;
}
code {
  font: inherit;
  overflow-wrap: anywhere;
  padding: var(--space-1) var(--space-2);
  background: var(--sheet-sunk);
  border-radius: var(--round);
}
</style>
