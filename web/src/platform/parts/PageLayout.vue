<script setup lang="ts">
import LoadingShape from './LoadingShape.vue'
import PageHead from './PageHead.vue'
import PlaceTabs from './PlaceTabs.vue'

/**
 * A page of the studio: its heading, what it is for, and what is on it, below each other. While it waits for something, which is
 * named, it has the shape of a page.
 */
withDefaults(
  defineProps<{ heading: string; width?: 'narrow' | 'usual' | 'wide' | 'whole'; waitsFor?: string | false }>(),
  { width: 'usual' },
)
</script>

<template>
  <div :class="['page', width]">
    <PageHead :heading="heading"><slot name="beside" /></PageHead>
    <PlaceTabs />
    <p v-if="$slots.purpose" class="quiet"><slot name="purpose" /></p>
    <slot />
    <LoadingShape v-if="waitsFor" :what="waitsFor" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-4);
  align-content: start;
  max-width: 64rem;
  padding: var(--space-4) var(--space-5) var(--space-6);
}
.narrow {
  max-width: 50rem;
}
.wide {
  max-width: 70rem;
}
.whole {
  max-width: none;
}
</style>
