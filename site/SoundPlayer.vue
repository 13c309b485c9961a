<script setup lang="ts">
import type { PublicSound } from './facts'
import { playedAddress } from './playedAddress'
import { playerWords } from './playerWords'
import { useMessages } from './useMessages'

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
const messages = useMessages()
const { t, size } = messages
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
    :data-words="JSON.stringify(playerWords(messages))"
  >
    <audio controls preload="none" :src="playedAddress(sound.address, isAlone ? 'frame' : 'page')" />
    <a class="download" :href="playedAddress(sound.address, isAlone ? 'frame' : 'page')" download>{{
      t('download', { size: size(sound.bytes) })
    }}</a>
  </div>
</template>
