<script setup lang="ts">
import { siteOf } from './words'
import { useMessages } from './useMessages'

/** A film that lives elsewhere: nothing of it is loaded before somebody wants to see it. */
defineProps<{ address: string; title: string }>()
const { t } = useMessages()
</script>

<template>
  <p class="film" data-film :data-address="address" :data-title="title">
    <a :href="address">{{ t('watchFilm') }}</a>{{ ' '
    }}<span class="quiet">{{ t('filmFrom', { site: siteOf(address) }) }}</span>
  </p>
</template>
