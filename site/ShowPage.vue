<script setup lang="ts">
import { everyEpisode, filterQuery } from '@core/site/filter'
import CommentList from './CommentList.vue'
import EpisodeList from './EpisodeList.vue'
import FeedAddress from './FeedAddress.vue'
import PageFrame from './PageFrame.vue'
import PersonLine from './PersonLine.vue'
import ReadyToPlay from './ReadyToPlay.vue'
import type { ShowPage } from './facts'
import { useMessages } from './useMessages'
import { roleName } from './words'

const props = defineProps<ShowPage>()
const listed = (filter: Partial<typeof everyEpisode>): string =>
  `${props.show.pageAddress}/episodes${filterQuery({ ...everyEpisode, ...filter })}`
/** So many tags stand on the page. */
const mostTags = 24
const { list, t } = useMessages()
</script>

<template>
  <PageFrame :show="show" here="show">
    <p v-if="!newest" class="quiet">{{ t('nothingYetFeed') }}</p>
    <ReadyToPlay v-if="newest" :show="show" :episode="newest" :words="t('newestEpisode')" />
    <ReadyToPlay v-if="trailer" :show="show" :episode="trailer" :words="t('startHere')" />
    <template v-for="kind in show.theme.blocks" :key="kind">
      <FeedAddress v-if="kind === 'subscribe'" :show="show" />
      <section v-else-if="kind === 'episodes' && episodes.length" aria-labelledby="episodes">
        <h2 id="episodes" class="section">{{ t('episodes') }}</h2>
        <EpisodeList :show="show" :episodes="episodes" />
        <p v-if="choices.total > episodes.length + 1" class="more">
          <a :href="listed({})">{{ t('allOfEpisodes', { total: choices.total }) }}</a>
        </p>
      </section>
      <section v-else-if="kind === 'seasons' && choices.seasons.length > 1" aria-labelledby="seasons">
        <h2 id="seasons" class="section">{{ t('seasons') }}</h2>
        <ul class="chips">
          <li v-for="season in choices.seasons" :key="season">
            <a :href="listed({ season })">{{ t('season', { number: season }) }}</a>
          </li>
        </ul>
      </section>
      <section v-else-if="kind === 'tags' && choices.tags.length" aria-labelledby="tags">
        <h2 id="tags" class="section">{{ t('topics') }}</h2>
        <ul class="chips">
          <li v-for="{ tag, count } in choices.tags.slice(0, mostTags)" :key="tag">
            <a :href="listed({ tag })"
              >{{ tag }} <span class="figures quiet">{{ count }}</span></a
            >
          </li>
        </ul>
      </section>
      <section v-else-if="kind === 'people' && people.length" aria-labelledby="people">
        <h2 id="people" class="section">{{ t('peopleInShow') }}</h2>
        <ul class="faces">
          <li v-for="person in people" :key="person.name">
            <PersonLine :person="person" :roles="list(person.roles.map(role => roleName(role, t)))" />
          </li>
        </ul>
        <p>
          <a :href="`${show.pageAddress}/people`">{{ t('everyone') }}</a>
        </p>
      </section>
      <section v-else-if="kind === 'comments' && comments.length" aria-labelledby="comments">
        <h2 id="comments" class="section">{{ t('comments') }}</h2>
        <CommentList :show="show" :comments="comments" />
      </section>
      <section v-else-if="kind === 'about'" aria-labelledby="about">
        <h2 id="about" class="section">{{ t('about', { show: show.name }) }}</h2>
        <p class="about">{{ show.description }}</p>
      </section>
    </template>
  </PageFrame>
</template>
