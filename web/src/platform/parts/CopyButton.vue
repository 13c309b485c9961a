<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import { t } from './messages'

/** Copies a text, and says so for a while. `about` is read aloud behind its words. */
withDefaults(defineProps<{ text: string; words?: string; about?: string }>(), { words: t('copy') })
const { copy, copied } = useClipboard({ copiedDuring: 2000 })
</script>

<template>
  <button type="button" class="small-button" @click="copy(text)">
    {{ copied ? t('copied') : words }}<span v-if="about" class="out-of-sight">{{ ` ${about}` }}</span>
  </button>
</template>
