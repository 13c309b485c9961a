<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, toRef } from 'vue'
import { firstSentence } from '@core/episode/wants'
import { mostDescriptionBytes } from '@core/feed/description'
import { plainNotes } from '@core/notes/plain'
import { cut, letters, utf8Bytes } from '@core/words/line'
import { locale } from '../../platform/messages'
import { t } from './messages'

/** What a phone’s list shows of the notes, and how much of the feed’s room they take. */
const props = defineProps<{ told: string }>()
/** So many letters of the first sentence stand in a phone’s list, on two lines (common practice, no source). */
const mostListLetters = 90
const pauseMs = 150

/** A long text is not counted at every letter. */
const counted = refDebounced(
  toRef(() => props.told),
  pauseMs,
)

const plain = computed(() => plainNotes(counted.value))
const bytes = computed(() => utf8Bytes(plain.value))
const first = computed(() => {
  const sentence = firstSentence(plain.value)
  return letters(sentence) > mostListLetters ? `${cut(sentence, mostListLetters - 1, () => 1).trimEnd()}…` : sentence
})
const count = (number: number): string => number.toLocaleString(locale)
</script>

<template>
  <p class="small quiet flex flex-wrap gap-x-4 gap-y-1 justify-between mt-1">
    <span v-if="first" dir="auto">{{ t('inPhoneList', { sentence: first }) }}</span>
    <span v-else>{{ t('phoneListEmpty') }}</span>
    <span class="figures" :class="{ over: bytes > mostDescriptionBytes }" data-testid="bytes">
      {{
        t(bytes > mostDescriptionBytes ? 'moreBytesThanApps' : 'bytesInFeed', {
          bytes: count(bytes),
          most: count(mostDescriptionBytes),
        })
      }}
    </span>
  </p>
</template>

<style scoped>
.over {
  color: var(--signal);
  font-weight: 600;
}
</style>
