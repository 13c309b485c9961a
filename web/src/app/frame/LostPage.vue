<script setup lang="ts">
import { t } from './messages'
</script>

<template>
  <main>
    <h1>{{ t('pageNotFound') }}</h1>
    <p class="actions">
      <RouterLink :to="{ name: 'home' }">{{ t('toYourShows') }}</RouterLink>
    </p>
  </main>
</template>

<style scoped>
main {
  padding: 20vh var(--space-6);
}
</style>
