<script setup lang="ts">
import { everyEpisode, filterQuery } from '@core/site/filter'
import EpisodeList from './EpisodeList.vue'
import FeedAddress from './FeedAddress.vue'
import PageFrame from './PageFrame.vue'
import ReadyToPlay from './ReadyToPlay.vue'
import type { ShowPage } from './facts'

const props = defineProps<ShowPage>()
const listed = (filter: Partial<typeof everyEpisode>): string =>
  `${props.show.pageAddress}/episodes${filterQuery({ ...everyEpisode, ...filter })}`
/** So many tags stand on the page. */
const mostTags = 24
</script>

<template>
  <PageFrame :show="show" here="show">
    <p v-if="!newest" class="quiet">Nothing has been released yet. The feed’s address is there already, and stays.</p>
    <ReadyToPlay v-if="newest" :show="show" :episode="newest" words="The newest episode" />
    <ReadyToPlay v-if="trailer" :show="show" :episode="trailer" words="New here? Begin with this" />
    <FeedAddress :show="show" />
    <section v-if="episodes.length" aria-labelledby="episodes">
      <h2 id="episodes" class="section">Episodes</h2>
      <EpisodeList :show="show" :episodes="episodes" />
      <p v-if="choices.total > episodes.length + 1" class="more">
        <a :href="listed({})">All {{ choices.total }} episodes</a>
      </p>
    </section>
    <section v-if="choices.seasons.length > 1" aria-labelledby="seasons">
      <h2 id="seasons" class="section">Seasons</h2>
      <ul class="chips">
        <li v-for="season in choices.seasons" :key="season">
          <a :href="listed({ season })">Season {{ season }}</a>
        </li>
      </ul>
    </section>
    <section v-if="choices.tags.length" aria-labelledby="tags">
      <h2 id="tags" class="section">What it is about</h2>
      <ul class="chips">
        <li v-for="{ tag, count } in choices.tags.slice(0, mostTags)" :key="tag">
          <a :href="listed({ tag })"
            >{{ tag }} <span class="figures quiet">{{ count }}</span></a
          >
        </li>
      </ul>
    </section>
  </PageFrame>
</template>
