<script setup lang="ts">
import type { Preview } from '@contract/preview'
import { t } from './messages'

/** The item as it will stand in the feed; what comes from the show is marked. */
defineProps<{ lines: Preview['item'] }>()
</script>

<template>
  <div class="item boxed" role="group" :aria-label="t('theFeedsItem')" tabindex="0">
    <code v-for="({ line, isInherited }, at) in lines" :key="at" :class="{ inherited: isInherited }" dir="auto"
      >{{ line }}<span v-if="isInherited" class="mark quiet"> {{ t('fromTheShow') }}</span></code
    >
  </div>
</template>

<style scoped>
.item {
  max-height: 100%;
  overflow: auto;
  padding: var(--space-3);
}
code {
  display: block;
  min-height: 1.5em;
  font-size: var(--text-s);
  line-height: 1.5;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
.inherited {
  background: var(--accent-wash);
}
.mark {
  font-family: var(--sans);
  font-style: italic;
}
</style>
