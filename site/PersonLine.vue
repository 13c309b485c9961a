<script setup lang="ts">
import WebPicture from './WebPicture.vue'
import type { PersonInShow } from './facts'

defineProps<{ person: Pick<PersonInShow, 'name' | 'address' | 'pictureAddress'>; roles: string }>()
</script>

<template>
  <WebPicture
    v-if="person.pictureAddress"
    class="face"
    :address="person.pictureAddress"
    :width="40"
    :height="40"
    is-lazy
  />
  <a v-if="person.address" :href="person.address">{{ person.name }}</a>
  <template v-else>{{ person.name }}</template>{{ ' ' }}<span class="quiet">{{ roles }}</span>
</template>
