<script setup lang="ts">
import { mostSearchLetters } from '@core/search/query'
import type { PublicShow } from './facts'
import { useMessages } from './useMessages'

defineProps<{ show: Pick<PublicShow, 'pageAddress'>; words: string }>()
const { t } = useMessages()
</script>

<template>
  <form class="search" role="search" :action="`${show.pageAddress}/search`">
    <label class="out-of-sight" for="search-words">{{ t('searchLabel') }}</label>
    <input
      id="search-words"
      name="q"
      type="search"
      :maxlength="mostSearchLetters"
      :value="words"
      :placeholder="t('searchPlaceholder')"
      autocomplete="off"
    />
    <button type="submit">{{ t('search') }}</button>
  </form>
</template>
