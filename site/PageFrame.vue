<script setup lang="ts">
import { artworkAt } from '@core/show/artwork'
import SearchForm from './SearchForm.vue'
import type { PublicShow } from './facts'

/** What every page of a show has around it. */
defineProps<{ show: PublicShow; here: 'show' | 'episodes' | 'people' | 'listen' | 'search' | 'elsewhere' }>()
</script>

<template>
  <a class="skip" href="#main">To the page’s own words</a>
  <header class="masthead" :class="{ small: here !== 'show' }">
    <div v-if="here === 'show'" class="column masthead-row">
      <img
        class="artwork"
        :src="artworkAt(show.artworkAddress, 480)"
        :alt="`Artwork of ${show.name}`"
        width="200"
        height="200"
      />
      <div>
        <h1>{{ show.name }}</h1>
        <p class="by">by {{ show.author }}</p>
        <p class="lead">{{ show.description }}</p>
      </div>
    </div>
    <div v-else class="column masthead-row">
      <img class="artwork" :src="artworkAt(show.artworkAddress, 160)" alt="" width="56" height="56" />
      <a class="show-name" :href="show.pageAddress">{{ show.name }}</a>
    </div>
    <nav class="column places" :aria-label="show.name">
      <ul>
        <li>
          <a :href="`${show.pageAddress}/episodes`" :aria-current="here === 'episodes' ? 'page' : undefined"
            >All episodes</a
          >
        </li>
        <li>
          <a :href="`${show.pageAddress}/people`" :aria-current="here === 'people' ? 'page' : undefined">People</a>
        </li>
        <li>
          <a :href="`${show.pageAddress}/listen`" :aria-current="here === 'listen' ? 'page' : undefined"
            >How to listen</a
          >
        </li>
      </ul>
      <SearchForm v-if="here !== 'search'" :show="show" words="" />
    </nav>
    <div class="shore" aria-hidden="true" />
  </header>
  <main id="main" class="column"><slot /></main>
  <footer class="column foot">
    <p>
      <a :href="show.pageAddress">{{ show.name }}</a> by {{ show.author }}
      <template v-for="way in show.funding" :key="way.address">
        · <a :href="way.address">{{ way.name }}</a></template
      >
      · <a :href="show.feedAddress">Feed</a>
    </p>
  </footer>
</template>
