<script setup lang="ts">
import PersonLine from './PersonLine.vue'
import type { PublicEpisode } from './facts'

defineProps<{ people: PublicEpisode['people'] }>()
</script>

<template>
  <section aria-labelledby="people">
    <h2 id="people" class="section">People</h2>
    <ul class="people">
      <li v-for="person in people" :key="person.name + person.role">
        <PersonLine :person="person" :roles="person.role" />
      </li>
    </ul>
  </section>
</template>
