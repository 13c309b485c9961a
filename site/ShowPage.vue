<script setup lang="ts">
import { everyEpisode, filterQuery } from '@core/site/filter'
import CommentList from './CommentList.vue'
import EpisodeList from './EpisodeList.vue'
import FeedAddress from './FeedAddress.vue'
import PageFrame from './PageFrame.vue'
import PersonLine from './PersonLine.vue'
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
    <template v-for="kind in show.theme.blocks" :key="kind">
      <FeedAddress v-if="kind === 'subscribe'" :show="show" />
      <section v-else-if="kind === 'episodes' && episodes.length" aria-labelledby="episodes">
        <h2 id="episodes" class="section">Episodes</h2>
        <EpisodeList :show="show" :episodes="episodes" />
        <p v-if="choices.total > episodes.length + 1" class="more">
          <a :href="listed({})">All {{ choices.total }} episodes</a>
        </p>
      </section>
      <section v-else-if="kind === 'seasons' && choices.seasons.length > 1" aria-labelledby="seasons">
        <h2 id="seasons" class="section">Seasons</h2>
        <ul class="chips">
          <li v-for="season in choices.seasons" :key="season">
            <a :href="listed({ season })">Season {{ season }}</a>
          </li>
        </ul>
      </section>
      <section v-else-if="kind === 'tags' && choices.tags.length" aria-labelledby="tags">
        <h2 id="tags" class="section">What it is about</h2>
        <ul class="chips">
          <li v-for="{ tag, count } in choices.tags.slice(0, mostTags)" :key="tag">
            <a :href="listed({ tag })"
              >{{ tag }} <span class="figures quiet">{{ count }}</span></a
            >
          </li>
        </ul>
      </section>
      <section v-else-if="kind === 'people' && people.length" aria-labelledby="people">
        <h2 id="people" class="section">People in this show</h2>
        <ul class="faces">
          <li v-for="person in people" :key="person.name">
            <PersonLine :person="person" :roles="person.roles.join(', ')" />
          </li>
        </ul>
        <p><a :href="`${show.pageAddress}/people`">All of them, and where they are to be heard</a></p>
      </section>
      <section v-else-if="kind === 'comments' && comments.length" aria-labelledby="comments">
        <h2 id="comments" class="section">Comments</h2>
        <CommentList :show="show" :comments="comments" />
      </section>
      <section v-else-if="kind === 'about'" aria-labelledby="about">
        <h2 id="about" class="section">About {{ show.name }}</h2>
        <p class="about">{{ show.description }}</p>
      </section>
    </template>
  </PageFrame>
</template>
