<script setup lang="ts">
import ChapterList from './ChapterList.vue'
import WebPicture from './WebPicture.vue'
import { clock } from '@core/words/amounts'
import { playedAddress } from './playedAddress'
import SoundPlayer from './SoundPlayer.vue'
import type { Embed } from './facts'
import { playerOf, playing } from './words'
import { FormattedMessage, useMessages } from './useMessages'

const props = defineProps<Embed>()
const [first] = props.episodes
const { t } = useMessages()
</script>

<template>
  <main class="embed">
    <p v-if="!first" class="quiet">
      <FormattedMessage of="embedNothing" :values="{ show: show.name }">
        <template #link="{ words }"
          ><a :href="show.pageAddress" target="_blank" rel="noopener">{{ words }}</a></template
        >
      </FormattedMessage>
    </p>
    <template v-else>
      <div class="embed-head">
        <WebPicture
          class="artwork"
          :address="first.artworkAddress ?? show.artworkAddress"
          :width="72"
          :height="72"
          is-square
        />
        <div>
          <h1>
            <a data-heard class="episode-title" :href="first.pageAddress" target="_blank" rel="noopener">{{
              first.title
            }}</a>
          </h1>
          <p class="meta">
            <a :href="show.pageAddress" target="_blank" rel="noopener">{{ show.name }}</a>
            <a :href="`${show.pageAddress}/listen`" target="_blank" rel="noopener">{{ t('howToListen') }}</a>
          </p>
        </div>
      </div>
      <SoundPlayer is-alone v-bind="playerOf(show, first, first.sound)" />
      <ChapterList v-if="chapters.length" :chapters="chapters" :sound-address="first.sound.address" />
      <ol v-if="isList" class="found" :aria-label="t('episodes')" tabindex="0">
        <li
          v-for="(episode, at) in episodes"
          :key="episode.pageAddress"
          v-bind="playing(show, episode, 'frame')"
          :aria-current="at === 0 ? 'true' : undefined"
        >
          <a :href="playedAddress(episode.sound.address, 'frame')" data-plays>{{ episode.title }}</a>
          <span class="figures quiet">{{ clock(episode.sound.durationMs) }}</span>
        </li>
      </ol>
    </template>
  </main>
</template>
