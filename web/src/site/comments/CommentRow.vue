<script setup lang="ts">
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { ref } from 'vue'
import type { Comment, CommentChange } from '@contract/comments'
import { dateWords } from '@core/release/moment'
import { FormattedMessage, t } from './messages'

/** What somebody wrote, and what can be done with it. */
const props = defineProps<{ comment: Comment; zone: string; busy: boolean }>()
const emit = defineEmits<{ change: [wanted: Omit<CommentChange, 'version'>] }>()
const answer = ref<string | null>(null)
const stateWords = { waiting: t('waitingToBeRead'), shown: t('shown'), hidden: t('hidden') } as const

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
      <FormattedMessage of="nameToEpisode" :values="{ name: comment.name, title: comment.episode.title }">
        <template #writer="{ words }"
          ><b dir="auto">{{ words }}</b></template
        >
        <template #episode="{ words }"
          ><a v-if="comment.episode.pageAddress" :href="comment.episode.pageAddress" target="_blank">{{ words }}</a
          ><template v-else>{{ words }}</template></template
        >
      </FormattedMessage>
      · {{ dateWords(new Date(comment.cameAt), zone) }} ·
      <span :class="{ needs: comment.state === 'waiting' }">{{ stateWords[comment.state] }}</span>
      <template v-if="comment.links"> · {{ t('linksInIt', { count: comment.links }) }}</template>
      <template v-if="comment.isBanned"> · {{ t('blocked') }}</template>
    </p>
    <p class="words m-0 whitespace-pre-line wrap-anywhere" dir="auto">{{ comment.words }}</p>
    <blockquote v-if="comment.answer && answer === null" class="words m-0 whitespace-pre-line wrap-anywhere" dir="auto">
      {{ comment.answer }}
    </blockquote>
    <form v-if="answer !== null" class="spaced" @submit.prevent="save">
      <Textarea v-model="answer" rows="3" auto-resize :aria-label="t('yourAnswer')" maxlength="3000" />
      <div class="actions">
        <Button type="submit" size="small" :label="t('answerAndShowBoth')" :disabled="busy" />
        <Button type="button" size="small" text :label="t('cancel')" @click="answer = null" />
      </div>
    </form>
    <div v-else class="actions">
      <Button
        v-if="comment.state !== 'shown'"
        size="small"
        :label="t('show')"
        :outlined="comment.state === 'hidden'"
        :disabled="busy"
        @click="emit('change', { state: 'shown' })"
      />
      <Button
        v-if="comment.state !== 'hidden'"
        size="small"
        outlined
        :label="t('hide')"
        :disabled="busy"
        @click="emit('change', { state: 'hidden' })"
      />
      <Button
        size="small"
        text
        :label="comment.answer ? t('changeTheAnswer') : t('answer')"
        :disabled="busy"
        @click="begin"
      />
      <Button
        v-if="comment.isBanned"
        size="small"
        text
        :label="t('unblock')"
        :disabled="busy"
        @click="emit('change', { isBanned: false })"
      />
      <Button
        v-else
        size="small"
        text
        :label="t('blockThisWriter')"
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
