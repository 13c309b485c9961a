<script setup lang="ts">
defineProps<{ address: string; elsewhere: readonly { name: string; address: string }[] }>()
</script>

<template>
  <section class="feed" aria-labelledby="subscribe">
    <h2 id="subscribe">Hear every episode</h2>
    <p>Give this address to your listening app, and new episodes come by themselves:</p>
    <p class="feed-row">
      <a class="feed-address" :href="address">{{ address }}</a>
      <button type="button" data-copy hidden :data-text="address">Copy the address</button>
    </p>
    <p v-if="elsewhere.length" class="elsewhere">
      It is also in
      <template v-for="(place, at) in elsewhere" :key="place.address"
        ><template v-if="at > 0">{{ at === elsewhere.length - 1 ? ' and ' : ', ' }}</template
        ><a :href="place.address">{{ place.name }}</a></template
      >.
    </p>
  </section>
</template>
