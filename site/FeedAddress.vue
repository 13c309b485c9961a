<script setup lang="ts">
defineProps<{ address: string }>()
</script>

<template>
  <section class="feed" aria-labelledby="subscribe">
    <h2 id="subscribe">Hear every episode</h2>
    <p>Give this address to your listening app, and new episodes come by themselves:</p>
    <p class="feed-row">
      <a class="feed-address" :href="address">{{ address }}</a>
      <button type="button" data-copy hidden :data-text="address">Copy the address</button>
    </p>
  </section>
</template>
