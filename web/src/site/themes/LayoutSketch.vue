<script setup lang="ts">
import type { Layout } from '@core/site/siteTheme'

/** A layout in a few strokes. */
defineProps<{ layout: Layout }>()
</script>

<template>
  <svg viewBox="0 0 48 36" aria-hidden="true">
    <rect class="paper" width="48" height="36" />
    <template v-if="layout === 'shore'">
      <path class="band" d="M0 0h48v13q-6 3-12 0t-12 0-12 0-12 0z" />
      <rect class="light" x="8" y="3" width="7" height="7" />
      <path class="pale" d="M18 5h14M18 8h10" />
      <path class="line" d="M8 20h32M8 25h32M8 30h32" />
    </template>
    <template v-else-if="layout === 'letter'">
      <rect class="band" x="21" y="3" width="6" height="6" />
      <path class="line" d="M16 13h16M12 17h24M17 23h14M15 27h18M18 31h12" />
    </template>
    <template v-else-if="layout === 'quay'">
      <rect class="band" width="14" height="36" />
      <rect class="light" x="3" y="4" width="8" height="8" />
      <path class="pale" d="M3 16h8M3 20h6M3 24h7" />
      <path class="line" d="M18 6h26" />
      <path class="card" d="M18 11h12v9H18zM32 11h12v9H32zM18 23h12v9H18zM32 23h12v9H32z" />
    </template>
    <template v-else>
      <rect class="band" width="48" height="19" />
      <path class="pale heavy" d="M5 7h26" />
      <rect class="sheet" x="5" y="13" width="38" height="9" />
      <path class="line" d="M5 26h17M26 26h17M5 31h17M26 31h17" />
    </template>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  border-radius: 3px;
}
.paper {
  fill: var(--paper);
}
.band {
  fill: var(--deep);
}
.light {
  fill: var(--on-deep-soft);
}
.sheet,
.card {
  fill: var(--sheet);
  stroke: var(--edge-strong);
}
.line,
.pale {
  fill: none;
  stroke: var(--edge-strong);
  stroke-width: 1.6;
}
.pale {
  stroke: var(--on-deep-soft);
}
.heavy {
  stroke-width: 4;
}
</style>
