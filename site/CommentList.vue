<script setup lang="ts">
import type { PublicShow, ShownComment } from './facts'
import { releaseDay } from './words'

defineProps<{ show: PublicShow; comments: readonly ShownComment[] }>()
</script>

<template>
  <ol class="comments">
    <li v-for="(comment, at) in comments" :key="at">
      <p class="meta">
        <b dir="auto">{{ comment.name }}</b>
        <time :datetime="comment.cameAt">{{ releaseDay(comment.cameAt, show) }}</time>
        <a v-if="comment.episode" :href="comment.episode.pageAddress">{{ comment.episode.title }}</a>
      </p>
      <p class="words" dir="auto">{{ comment.words }}</p>
      <blockquote v-if="comment.answer">
        <p class="meta">
          <b>{{ show.author }}</b>
        </p>
        <p class="words" dir="auto">{{ comment.answer }}</p>
      </blockquote>
    </li>
  </ol>
</template>
