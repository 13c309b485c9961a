<script setup lang="ts">
import { mostCommentLetters, mostNameLetters } from '@core/comments/comment'

defineProps<{ pageAddress: string; showName: string; name?: string; words?: string }>()
</script>

<template>
  <form class="comment-form" method="post" :action="`${pageAddress}/comments`">
    <p>
      <label for="comment-name">Your name, or what you want to be called</label>
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
      <label for="comment-words">What you want to say</label>
      <textarea id="comment-words" name="words" rows="5" required :maxlength="mostCommentLetters" :value="words" />
    </p>
    <!-- No person sees this; a machine that fills in all there is falls into it. -->
    <p class="trap" aria-hidden="true">
      <label for="comment-website">Leave this empty</label>
      <input id="comment-website" name="website" type="text" tabindex="-1" autocomplete="off" />
    </p>
    <button type="submit">Send it</button>
    <p class="quiet small">
      It is shown here once {{ showName }} has read it, under this name. Nothing else of you is shown.
    </p>
  </form>
</template>
