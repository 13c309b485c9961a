<script setup lang="ts">
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { ref } from 'vue'
import type { Comment, CommentChange } from '@contract/comments'
import { dateWords } from '@core/release/moment'

/** What somebody wrote, and what can be done with it. */
const props = defineProps<{ comment: Comment; zone: string; busy: boolean }>()
const emit = defineEmits<{ change: [wanted: Omit<CommentChange, 'version'>] }>()
const answer = ref<string | null>(null)
const stateWords = { waiting: 'Waiting to be read', shown: 'Shown', hidden: 'Hidden' } as const

function save(): void {
  emit('change', { answer: answer.value, state: 'shown' })
  answer.value = null
}
const begin = (): void => {
  answer.value = props.comment.answer ?? ''
}
</script>

<template>
  <li class="stacked py-4 border-t border-edge" :class="{ away: comment.state === 'hidden' }">
    <p class="small quiet">
      <b dir="auto">{{ comment.name }}</b> to
      <a v-if="comment.episode.pageAddress" :href="comment.episode.pageAddress" target="_blank">{{
        comment.episode.title
      }}</a>
      <template v-else>{{ comment.episode.title }}</template>
      · {{ dateWords(new Date(comment.cameAt), zone) }} ·
      <span :class="{ needs: comment.state === 'waiting' }">{{ stateWords[comment.state] }}</span>
      <template v-if="comment.links">
        · {{ comment.links === 1 ? 'one link' : `${comment.links} links` }} in it</template
      >
      <template v-if="comment.isBanned"> · blocked</template>
    </p>
    <p class="words m-0 whitespace-pre-line wrap-anywhere" dir="auto">{{ comment.words }}</p>
    <blockquote v-if="comment.answer && answer === null" class="words m-0 whitespace-pre-line wrap-anywhere" dir="auto">
      {{ comment.answer }}
    </blockquote>
    <form v-if="answer !== null" class="spaced" @submit.prevent="save">
      <Textarea v-model="answer" rows="3" auto-resize aria-label="Your answer" maxlength="3000" />
      <div class="actions">
        <Button type="submit" size="small" label="Answer and show both" :disabled="busy" />
        <Button type="button" size="small" text label="Cancel" @click="answer = null" />
      </div>
    </form>
    <div v-else class="actions">
      <Button
        v-if="comment.state !== 'shown'"
        size="small"
        label="Show"
        :outlined="comment.state === 'hidden'"
        :disabled="busy"
        @click="emit('change', { state: 'shown' })"
      />
      <Button
        v-if="comment.state !== 'hidden'"
        size="small"
        outlined
        label="Hide"
        :disabled="busy"
        @click="emit('change', { state: 'hidden' })"
      />
      <Button
        size="small"
        text
        :label="comment.answer ? 'Change the answer' : 'Answer'"
        :disabled="busy"
        @click="begin"
      />
      <Button
        v-if="comment.isBanned"
        size="small"
        text
        label="Unblock"
        :disabled="busy"
        @click="emit('change', { isBanned: false })"
      />
      <Button
        v-else
        size="small"
        text
        label="Block this writer"
        :disabled="busy"
        @click="emit('change', { isBanned: true, state: 'hidden' })"
      />
    </div>
  </li>
</template>

<style scoped>
blockquote {
  padding-inline-start: var(--space-3);
  border-inline-start: 3px solid var(--accent);
}
.away .words {
  color: var(--ink-soft);
}
.needs {
  color: var(--signal);
  font-weight: 600;
}
</style>
