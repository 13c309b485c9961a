<script setup lang="ts">
import { clock } from '@core/words/amounts'
import WebPicture from './WebPicture.vue'
import type { PublicEpisode } from './facts'
import { siteOf } from './words'
import { useMessages } from './useMessages'

defineProps<{ chapters: PublicEpisode['chapters']; soundAddress: string }>()
const { t } = useMessages()
</script>

<template>
  <section aria-labelledby="chapters">
    <h2 id="chapters" class="section">{{ t('chapters') }}</h2>
    <ol class="chapters" data-chapters>
      <li v-for="chapter in chapters" :key="chapter.fromMs" :data-from-ms="chapter.fromMs">
        <!-- Without script it leads to the sound at that place (W3C Media Fragments 1.0, section 4.2.1). -->
        <a class="figures" :href="`${soundAddress}#t=${chapter.fromMs / 1000}`" data-at>{{ clock(chapter.fromMs) }}</a>
        <WebPicture v-if="chapter.pictureAddress" :address="chapter.pictureAddress" :width="40" :height="40" is-lazy />
        <span>{{ chapter.title }}</span>
        <a v-if="chapter.address" class="small" :href="chapter.address">{{ siteOf(chapter.address) }}</a>
      </li>
    </ol>
  </section>
</template>
