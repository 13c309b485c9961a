<script setup lang="ts">
import CopyAddress from './CopyAddress.vue'
import type { PublicShow } from './facts'

defineProps<{ show: PublicShow }>()
</script>

<template>
  <section class="feed" aria-labelledby="subscribe">
    <h2 id="subscribe">Subscribe</h2>
    <p>Give this address to your listening app, and new episodes come by themselves:</p>
    <CopyAddress :address="show.feedAddress" words="Copy the address" />
    <p class="elsewhere">
      <template v-if="show.subscribe.length">
        It is also in
        <template v-for="(place, at) in show.subscribe" :key="place.address"
          ><template v-if="at > 0">{{ at === show.subscribe.length - 1 ? ' and ' : ', ' }}</template
          ><a :href="place.address">{{ place.name }}</a></template
        >.{{ ' ' }}</template
      ><a :href="`${show.pageAddress}/listen`">How to listen, step by step</a>
    </p>
  </section>
</template>
