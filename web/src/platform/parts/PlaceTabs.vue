<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

/** The parts of the place that is open, side by side; nothing where it has one only. */
const route = useRoute()
const place = computed(() => route.meta.place)
</script>

<template>
  <nav v-if="place && place.tabs.length > 1" class="tabs" :aria-label="`Parts of ${place.words}`">
    <RouterLink v-for="{ name, words } in place.tabs" :key="name" :to="{ name, params: { show: route.params.show } }">{{
      words
    }}</RouterLink>
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--space-1);
  border-bottom: 1px solid var(--edge);
}
a {
  padding: var(--space-2) var(--space-3);
  color: var(--ink-soft);
  text-decoration: none;
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
