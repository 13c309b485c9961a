<script setup lang="ts">
/** The heading of a page, and what is beside it: its figures, its actions, the ways on. */
withDefaults(defineProps<{ heading: string; id?: string }>(), { id: 'page-heading' })
</script>

<template>
  <header class="apart gap-x-5 gap-y-2">
    <h1 class="text-2xl wrap-anywhere" :id="id">{{ heading }}</h1>
    <slot />
  </header>
</template>
