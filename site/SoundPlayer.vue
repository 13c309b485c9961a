<script setup lang="ts">
import { amount } from '@core/words/amounts'
import type { PublicSound } from './facts'

/** The sound, with the browser's own controls; a script puts the show's player in their place. */
defineProps<{
  sound: PublicSound
  /** What is heard, for lock screens and the window of its own. */
  title: string
  show: string
  picture: string
  pageAddress: string
  /** Whether it is all there is, in a frame or a window of its own. */
  isAlone?: boolean
}>()
</script>

<template>
  <div
    class="player"
    lang="en"
    dir="ltr"
    :data-player="isAlone ? 'alone' : ''"
    :data-duration-ms="sound.durationMs"
    :data-title="title"
    :data-show="show"
    :data-picture="picture"
    :data-page="pageAddress"
  >
    <audio controls preload="none" :src="sound.address" />
    <a class="download" :href="sound.address" download>Download, {{ amount(sound.bytes) }}</a>
  </div>
</template>
