<script setup lang="ts">
import { siteOf } from './words'

/** A film that lives elsewhere: nothing of it is loaded before somebody wants to see it. */
defineProps<{ address: string; title: string }>()
</script>

<template>
  <p class="film" data-film :data-address="address" :data-title="title">
    <a :href="address">See the film</a>{{ ' '
    }}<span class="quiet">at {{ siteOf(address) }}, which learns of you then</span>
  </p>
</template>
