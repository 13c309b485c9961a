<script setup lang="ts">
import type { Show } from '@contract/shows'
import PageHead from '../platform/parts/PageHead.vue'

/** The head of all that is about the show's site. */
defineProps<{ show: Show; id: string }>()
const places = [
  { name: 'site', words: 'Look' },
  { name: 'site-share', words: 'Pass it on' },
  { name: 'site-pages', words: 'Pages of your own' },
  { name: 'site-comments', words: 'Comments' },
  { name: 'site-host', words: 'Host name' },
]
</script>

<template>
  <PageHead heading="Site" :id="id">
    <nav aria-label="More about the site">
      <RouterLink v-for="place in places" :key="place.name" :to="{ name: place.name, params: { show: show.slug } }">{{
        place.words
      }}</RouterLink>
      <a :href="show.pageAddress" target="_blank">As visitors see it</a>
    </nav>
  </PageHead>
</template>

<style scoped>
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--space-4);
}
nav a {
  padding-block: 3px;
}
.router-link-exact-active {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
</style>
