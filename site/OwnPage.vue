<script setup lang="ts">
import PageFrame from './PageFrame.vue'
import type { OwnPage } from './facts'
import { sectioned } from './words'

defineProps<OwnPage>()
</script>

<template>
  <PageFrame :show="show" here="elsewhere" :address="`${show.pageAddress}/${slug}`">
    <article>
      <h1>{{ title }}</h1>
      <!-- eslint-disable-next-line vue/no-v-html -- cleaned by core/notes before it was kept -->
      <div class="notes" v-html="sectioned(contentHtml)" />
    </article>
  </PageFrame>
</template>
