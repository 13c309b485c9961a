<script setup lang="ts">
defineProps<{ address: string; words: string }>()
</script>

<template>
  <p class="feed-row">
    <a class="feed-address" :href="address">{{ address }}</a>
    <button type="button" data-copy hidden :data-text="address">{{ words }}</button>
  </p>
</template>
