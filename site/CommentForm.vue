<script setup lang="ts">
import { mostCommentLetters, mostNameLetters } from '@core/comments/comment'
import { useMessages } from './useMessages'

defineProps<{ pageAddress: string; showName: string; name?: string; words?: string }>()
const { t } = useMessages()
</script>

<template>
  <form class="comment-form" method="post" :action="`${pageAddress}/comments`">
    <p>
      <label for="comment-name">{{ t('commentName') }}</label>
      <input
        id="comment-name"
        name="name"
        type="text"
        required
        autocomplete="nickname"
        :maxlength="mostNameLetters"
        :value="name"
      />
    </p>
    <p>
      <label for="comment-words">{{ t('commentWords') }}</label>
      <textarea id="comment-words" name="words" rows="5" required :maxlength="mostCommentLetters" :value="words" />
    </p>
    <!-- No person sees this; a machine that fills in all there is falls into it. -->
    <p class="trap" aria-hidden="true">
      <label for="comment-website">{{ t('commentTrap') }}</label>
      <input id="comment-website" name="website" type="text" tabindex="-1" autocomplete="off" />
    </p>
    <button type="submit">{{ t('commentSend') }}</button>
    <p class="quiet small">{{ t('commentLater', { show: showName }) }}</p>
  </form>
</template>
