<script setup lang="ts">
import SearchForm from './SearchForm.vue'
import WebPicture from './WebPicture.vue'
import type { PublicShow } from './facts'
import { FormattedMessage, useMessages } from './useMessages'

/** What every page of a show has around it. */
const props = defineProps<{
  show: PublicShow
  here: 'show' | 'episodes' | 'people' | 'listen' | 'search' | 'elsewhere'
  /** Of a page of the maker’s own. */
  address?: string
}>()
const { t } = useMessages()
const places = [
  { name: t('allEpisodes'), address: `${props.show.pageAddress}/episodes`, isHere: props.here === 'episodes' },
  { name: t('people'), address: `${props.show.pageAddress}/people`, isHere: props.here === 'people' },
  { name: t('howToListen'), address: `${props.show.pageAddress}/listen`, isHere: props.here === 'listen' },
  ...props.show.pages.map(page => ({ ...page, isHere: page.address === props.address })),
]
</script>

<template>
  <a class="skip" href="#main">{{ t('skip') }}</a>
  <header class="masthead" :class="{ small: here !== 'show' }">
    <WebPicture
      v-if="show.theme.headerPictureAddress"
      class="wide"
      :address="show.theme.headerPictureAddress"
      :width="1280"
      :height="320"
    />
    <div class="band">
      <div class="column masthead-row">
        <WebPicture
          class="artwork"
          :address="show.artworkAddress"
          :alt="here === 'show' ? t('artworkOf', { show: show.name }) : ''"
          :width="here === 'show' ? 200 : 56"
          :height="here === 'show' ? 200 : 56"
          is-square
        />
        <div v-if="here === 'show'" class="who">
          <h1>{{ show.name }}</h1>
          <p class="by">{{ t('by', { author: show.author }) }}</p>
          <p v-if="!show.theme.blocks.includes('about')" class="lead">{{ show.description }}</p>
        </div>
        <p v-else class="who">
          <a class="show-name" :href="show.pageAddress">{{ show.name }}</a>
        </p>
      </div>
      <nav class="column places" :aria-label="show.name">
        <ul>
          <li v-for="place in places" :key="place.address">
            <a :href="place.address" :aria-current="place.isHere ? 'page' : undefined">{{ place.name }}</a>
          </li>
        </ul>
        <SearchForm v-if="here !== 'search'" :show="show" words="" />
      </nav>
    </div>
    <div class="shore" aria-hidden="true" />
  </header>
  <main id="main">
    <div class="column"><slot /></div>
  </main>
  <footer class="foot">
    <p class="column">
      <FormattedMessage of="showBy" :values="{ show: show.name, author: show.author }">
        <template #link="{ words }"
          ><a :href="show.pageAddress">{{ words }}</a></template
        >
      </FormattedMessage>
      <template v-for="way in show.funding" :key="way.address">
        · <a :href="way.address">{{ way.name }}</a></template
      >
      · <a :href="show.feedAddress">{{ t('feed') }}</a>
    </p>
  </footer>
</template>
