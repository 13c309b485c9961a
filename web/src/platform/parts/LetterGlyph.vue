<script setup lang="ts">
import type { Status } from '@core/release/status'

/** The state of a letter: open on the desk, sealed, sent over the water, folded away. Always beside its word. */
defineProps<{ status: Status }>()
</script>

<template>
  <svg
    class="glyph"
    viewBox="0 0 24 24"
    aria-hidden="true"
    fill="none"
    stroke="currentColor"
    stroke-width="1.6"
    stroke-linejoin="round"
    stroke-linecap="round"
  >
    <template v-if="status === 'draft'">
      <path d="M3 10.5V21h18V10.5" />
      <path d="M3 10.5 7 7.6M21 10.5l-4-2.9" />
      <path d="M7 13.2V3h10v10.2" />
      <path d="M9.5 6.5h5M9.5 9.5h3.5" />
      <path d="m3 10.5 9 6 9-6" />
    </template>
    <template v-else-if="status === 'scheduled'">
      <path d="M3 5.5h18v14H3z" />
      <path d="m3 5.5 6.6 5.6M21 5.5l-6.6 5.6" />
      <circle cx="12" cy="12.8" r="3.4" fill="currentColor" stroke="none" />
    </template>
    <template v-else-if="status === 'released'">
      <path d="M5 3.5h14v9.6H5z" />
      <path d="m5 3.5 7 5.4 7-5.4" />
      <path d="M2 17.4q2.5-2.2 5 0t5 0 5 0 5 0" />
      <path d="M5 21q1.75-1.6 3.5 0t3.5 0 3.5 0 3.5 0" />
    </template>
    <template v-else>
      <path d="M5 4h14v5.3H5zM5 9.3l1.6 5.4h10.8L19 9.3" />
      <path d="M6.6 14.7 5 20h14l-1.6-5.3" />
    </template>
  </svg>
</template>

<style scoped>
.glyph {
  width: 1.35em;
  height: 1.35em;
  flex: none;
}
</style>
