<script setup lang="ts">
/** The heading of a page, and what is beside it: its figures, its actions, the ways on. */
withDefaults(defineProps<{ heading: string; id?: string }>(), { id: 'page-heading' })
</script>

<template>
  <header class="apart">
    <h1 :id="id">{{ heading }}</h1>
    <slot />
  </header>
</template>

<style scoped>
header {
  gap: var(--space-2) var(--space-5);
}
h1 {
  font-size: var(--text-2xl);
  overflow-wrap: anywhere;
}
</style>
