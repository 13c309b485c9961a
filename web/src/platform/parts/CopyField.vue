<script setup lang="ts">
import CopyButton from './CopyButton.vue'

defineProps<{ label: string; text: string }>()
</script>

<template>
  <div class="copy-field spaced gap-1">
    <span class="field-name">{{ label }}</span>
    <div class="flex gap-3 items-baseline">
      <code>{{ text }}</code>
      <CopyButton :text="text" />
    </div>
  </div>
</template>

<style scoped>
code {
  font: inherit;
  overflow-wrap: anywhere;
  padding: var(--space-1) var(--space-2);
  background: var(--sheet-sunk);
  border-radius: var(--round);
}
</style>
