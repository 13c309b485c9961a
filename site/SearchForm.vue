<script setup lang="ts">
import { mostSearchLetters } from '@core/search/query'
import type { PublicShow } from './facts'

defineProps<{ show: Pick<PublicShow, 'pageAddress'>; words: string }>()
</script>

<template>
  <form class="search" role="search" :action="`${show.pageAddress}/search`">
    <label class="out-of-sight" for="search-words">Search notes and transcripts</label>
    <input
      id="search-words"
      name="q"
      type="search"
      :maxlength="mostSearchLetters"
      :value="words"
      placeholder="A word that was said"
      autocomplete="off"
    />
    <button type="submit">Search</button>
  </form>
</template>
