<script setup lang="ts">
import CommentForm from './CommentForm.vue'
import PageFrame from './PageFrame.vue'
import type { CommentPage } from './facts'
import { commentProblem } from './words'
import { FormattedMessage, useMessages } from './useMessages'

defineProps<CommentPage>()
const { t } = useMessages()
</script>

<template>
  <PageFrame :show="show" here="elsewhere">
    <template v-if="problem">
      <h1>{{ t('commentRefused') }}</h1>
      <p class="lead" role="alert">{{ commentProblem(problem, t) }}</p>
      <CommentForm :page-address="pageAddress" :show-name="show.name" :name="name" :words="words" />
    </template>
    <template v-else>
      <h1>{{ t('commentThanks') }}</h1>
      <p class="lead">{{ t('commentThanksLead', { author: show.author }) }}</p>
    </template>
    <p>
      <FormattedMessage of="commentBack" :values="{ title }">
        <template #episode="{ words: name }"
          ><a :href="pageAddress">{{ name }}</a></template
        >
      </FormattedMessage>
    </p>
  </PageFrame>
</template>
