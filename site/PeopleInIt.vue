<script setup lang="ts">
import WebPicture from './WebPicture.vue'
import type { PublicEpisode } from './facts'

defineProps<{ people: PublicEpisode['people'] }>()
</script>

<template>
  <section aria-labelledby="people">
    <h2 id="people" class="section">People</h2>
    <ul class="people">
      <li v-for="person in people" :key="person.name + person.role">
        <WebPicture
          v-if="person.pictureAddress"
          class="face"
          :address="person.pictureAddress"
          :width="40"
          :height="40"
          is-lazy
        />
        <a v-if="person.address" :href="person.address">{{ person.name }}</a>
        <template v-else>{{ person.name }}</template>{{ ' ' }}<span class="quiet">{{ person.role }}</span>
      </li>
    </ul>
  </section>
</template>
