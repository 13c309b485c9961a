<script setup lang="ts">
import type { PublicShow } from './facts'

defineProps<{ show: Pick<PublicShow, 'name' | 'pageAddress'> | null }>()
</script>

<template>
  <main class="column lone">
    <template v-if="show">
      <h1>This episode is no longer here</h1>
      <p class="quiet">
        Its maker has taken it out. What else there is to hear: <a :href="show.pageAddress">{{ show.name }}</a>.
      </p>
    </template>
    <template v-else>
      <h1>Page not found</h1>
      <p class="quiet">The page may have moved, or the episode may have been taken out by its maker.</p>
    </template>
  </main>
</template>
