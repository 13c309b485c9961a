<script setup lang="ts">
import CommentForm from './CommentForm.vue'
import PageFrame from './PageFrame.vue'
import type { CommentPage } from './facts'

defineProps<CommentPage>()
</script>

<template>
  <PageFrame :show="show" here="elsewhere">
    <template v-if="problem">
      <h1>Your comment was not accepted</h1>
      <p class="lead" role="alert">{{ problem }}</p>
      <CommentForm :page-address="pageAddress" :show-name="show.name" :name="name" :words="words" />
    </template>
    <template v-else>
      <h1>Thank you</h1>
      <p class="lead">What you wrote is on its way to {{ show.author }}, and is shown once it has been read.</p>
    </template>
    <p>
      Back to <a :href="pageAddress">{{ title }}</a>
    </p>
  </PageFrame>
</template>
