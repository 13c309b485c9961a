<script setup lang="ts">
import { useMessages } from './useMessages'

defineProps<{ address: string; words: string }>()
const { t } = useMessages()
</script>

<template>
  <p class="feed-row">
    <a class="feed-address" :href="address">{{ address }}</a>
    <button type="button" data-copy hidden :data-text="address" :data-done="t('copied')">{{ words }}</button>
  </p>
</template>
