<script setup lang="ts">
import { computed } from 'vue'
import { quietestDb } from './recorder'
import { t } from './messages'

/** How loud the microphone hears, and the loudest of the last while. */
const props = defineProps<{ levelDb: number; heldDb: number }>()
const share = (db: number): number => Math.max(0, Math.min(1, 1 - db / quietestDb))
const inWords = (db: number): string => db.toFixed(0).replace('-', '−')
const words = computed(() =>
  props.levelDb <= quietestDb ? t('levelSilent') : t('levelWords', { level: inWords(props.levelDb) }),
)
</script>

<template>
  <span class="flowing">
    <span
      class="meter"
      role="meter"
      :aria-label="t('levelNow')"
      :aria-valuemin="quietestDb"
      aria-valuemax="0"
      :aria-valuenow="Math.round(levelDb)"
      :aria-valuetext="words"
    >
      <span class="now" :style="{ width: `${100 * share(levelDb)}%` }"></span>
      <span class="held" :style="{ left: `${100 * share(heldDb)}%` }"></span>
    </span>
    <span class="figures small held-words">{{ t('peakHeld', { level: inWords(heldDb) }) }}</span>
  </span>
</template>

<style scoped>
.meter {
  position: relative;
  width: 14rem;
  height: 0.75rem;
  border: 1px solid var(--edge-strong);
  border-radius: 2px;
  background: var(--sheet-sunk);
}
.now {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--accent);
}
.held {
  position: absolute;
  inset-block: -3px;
  width: 2px;
  background: var(--ink);
}
.held-words {
  min-width: 6rem;
}
@media (forced-colors: active) {
  .now {
    background: Highlight;
  }
  .held {
    background: CanvasText;
  }
}
</style>
