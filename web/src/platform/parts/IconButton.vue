<script setup lang="ts">
import Tooltip from 'primevue/tooltip'
import type { Component } from 'vue'

/** An icon for where a word has no room: its name, or what more there is to say, is shown while it is pointed at or has the focus. */
defineProps<{ name: string; icon: Component; tip?: string }>()
const vTooltip = Tooltip
</script>

<template>
  <button v-tooltip.top="tip ?? name" type="button" class="icon-button" :aria-label="name">
    <component :is="icon" :size="17" :stroke-width="1.75" aria-hidden="true" />
  </button>
</template>

<style scoped>
.icon-button {
  display: inline-grid;
  flex: none;
  place-items: center;
  min-width: max(30px, var(--target));
  min-height: max(30px, var(--target));
  padding: 0;
  border: 1px solid transparent;
  border-radius: var(--round);
  background: none;
  color: var(--ink-soft);
  cursor: pointer;
}
.icon-button:hover,
.icon-button[aria-pressed='true'] {
  background: var(--accent-wash);
  color: var(--ink);
}
.icon-button[aria-pressed='true'] {
  border-color: var(--accent);
}
.icon-button:disabled {
  background: none;
  color: var(--edge-strong);
  cursor: default;
}
</style>
