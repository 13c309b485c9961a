<script setup lang="ts">
import { clock } from '@core/words/amounts'
import type { PublicEpisode } from './facts'
import { useMessages } from './useMessages'

defineProps<{ soundbites: PublicEpisode['soundbites']; soundAddress: string }>()
const { t } = useMessages()
</script>

<template>
  <section aria-labelledby="soundbites">
    <h2 id="soundbites" class="section">{{ t('clips') }}</h2>
    <ul class="chapters soundbites" data-soundbites>
      <li
        v-for="soundbite in soundbites"
        :key="soundbite.fromMs"
        :data-from-ms="soundbite.fromMs"
        :data-to-ms="soundbite.toMs"
      >
        <a class="figures" :href="`${soundAddress}#t=${soundbite.fromMs / 1000},${soundbite.toMs / 1000}`" data-at>{{
          clock(soundbite.fromMs)
        }}</a>
        <span>{{ soundbite.title }}</span>
        <a v-if="soundbite.address" class="small" :href="soundbite.address" download>{{
          t('clipFile', { duration: clock(soundbite.toMs - soundbite.fromMs) })
        }}</a>
      </li>
    </ul>
  </section>
</template>
