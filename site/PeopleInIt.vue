<script setup lang="ts">
import PersonLine from './PersonLine.vue'
import type { PublicEpisode } from './facts'
import { useMessages } from './useMessages'
import { roleName } from './words'

defineProps<{ people: PublicEpisode['people'] }>()
const { t } = useMessages()
</script>

<template>
  <section aria-labelledby="people">
    <h2 id="people" class="section">{{ t('people') }}</h2>
    <ul class="people">
      <li v-for="person in people" :key="person.name + person.role">
        <PersonLine :person="person" :roles="roleName(person.role, t)" />
      </li>
    </ul>
  </section>
</template>
