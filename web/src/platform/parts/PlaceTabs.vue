<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { t } from './messages'

/** The parts of the place that is open, side by side; nothing where it has one only. */
const route = useRoute()
const place = computed(() => route.meta.place)
</script>

<template>
  <nav
    v-if="place && place.tabs.length > 1"
    class="flex flex-wrap gap-x-1 gap-y-0 border-b border-edge"
    :aria-label="t('partsOf', { place: place.words })"
  >
    <RouterLink
      v-for="{ name, words } in place.tabs"
      class="tab px-3 py-2 text-ink-soft no-underline"
      :key="name"
      :to="{ name, params: { show: route.params.show } }"
      >{{ words }}</RouterLink
    >
  </nav>
</template>

<style scoped>
.tab {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
}
a:hover {
  color: var(--ink);
}
.router-link-exact-active {
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 0 -3px var(--accent);
}
</style>
