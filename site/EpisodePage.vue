<script setup lang="ts">
import { everyEpisode, filterQuery } from '@core/site/filter'
import { clock } from '@core/words/amounts'
import ChapterList from './ChapterList.vue'
import CommentForm from './CommentForm.vue'
import CommentList from './CommentList.vue'
import FeedAddress from './FeedAddress.vue'
import FilmFrame from './FilmFrame.vue'
import PageFrame from './PageFrame.vue'
import PeopleInIt from './PeopleInIt.vue'
import SoundbiteList from './SoundbiteList.vue'
import SoundPlayer from './SoundPlayer.vue'
import SpokenWords from './SpokenWords.vue'
import WebPicture from './WebPicture.vue'
import type { EpisodePage } from './facts'
import { playerOf, releaseDay, sectioned } from './words'
import { useMessages } from './useMessages'

const props = defineProps<EpisodePage>()
const listed = (filter: Partial<typeof everyEpisode>): string =>
  `${props.show.pageAddress}/episodes${filterQuery({ ...everyEpisode, ...filter })}`
const { t } = useMessages()
</script>

<template>
  <PageFrame :show="show" here="elsewhere">
    <article>
      <WebPicture
        v-if="episode.artworkAddress"
        class="artwork own"
        :address="episode.artworkAddress"
        :width="200"
        :height="200"
        is-square
      />
      <h1>{{ episode.title }}</h1>
      <p v-if="episode.hook" class="lead">{{ episode.hook }}</p>
      <p class="meta">
        <span v-if="episode.number">{{ t('number', { number: episode.number }) }}</span>
        <time v-if="episode.releasedAt" :datetime="episode.releasedAt">{{ releaseDay(episode.releasedAt, show) }}</time>
        <span v-if="episode.sound" class="figures">{{ clock(episode.sound.durationMs) }}</span>
        <a v-if="episode.season" :href="listed({ season: episode.season })">{{
          t('season', { number: episode.season })
        }}</a>
        <span v-if="episode.author">{{ t('by', { author: episode.author }) }}</span>
        <span v-if="episode.isExplicit">{{ t('explicit') }}</span>
        <span v-if="episode.isPromotion">{{ t('promotion') }}</span>
      </p>
      <SoundPlayer v-if="episode.sound" v-bind="playerOf(show, episode, episode.sound)" />
      <FilmFrame
        v-if="episode.film?.isShown"
        :address="episode.film.address"
        :title="t('filmOf', { title: episode.title })"
      />
      <p v-else-if="episode.film">
        <a :href="episode.film.address">{{ t('watchFilm') }}</a>
      </p>
      <ChapterList
        v-if="episode.sound && episode.chapters.length"
        :chapters="episode.chapters"
        :sound-address="episode.sound.address"
      />
      <SoundbiteList
        v-if="episode.sound && episode.soundbites.length"
        :soundbites="episode.soundbites"
        :sound-address="episode.sound.address"
      />
      <!-- eslint-disable-next-line vue/no-v-html -- cleaned by core/notes before it was kept -->
      <div class="notes" v-html="sectioned(episode.notesHtml)" />
      <ul v-if="episode.links.length" class="links" :aria-label="t('links')">
        <li v-for="link in episode.links" :key="link.address">
          <a :href="link.address">{{ link.name }}</a>
        </li>
      </ul>
      <SpokenWords
        v-if="episode.said.length || episode.transcriptFiles.length"
        :said="episode.said"
        :files="episode.transcriptFiles"
        :sound-address="episode.sound && episode.sound.address"
      />
      <PeopleInIt v-if="episode.people.length" :people="episode.people" />
      <ul v-if="episode.tags.length" class="chips" :aria-label="t('tags')">
        <li v-for="tag in episode.tags" :key="tag">
          <a :href="listed({ tag })">{{ tag }}</a>
        </li>
      </ul>
      <p v-if="episode.page || episode.discussion">
        <a v-if="episode.page" :href="episode.page">{{ t('moreAbout') }}</a>
        <template v-if="episode.page && episode.discussion"> · </template>
        <a v-if="episode.discussion" :href="episode.discussion">{{ t('discuss') }}</a>
      </p>
      <p v-if="episode.place || episode.licence" class="quiet">
        <template v-if="episode.place">{{ t('recordedAt', { place: episode.place }) }}{{ ' ' }}</template>
        <template v-if="episode.licence">{{ t('licence', { licence: episode.licence }) }}</template>
      </p>
    </article>
    <section v-if="show.takesComments || comments.length" class="written" aria-labelledby="comments">
      <h2 id="comments" class="section">{{ t('comments') }}</h2>
      <CommentList v-if="comments.length" :show="show" :comments="comments" />
      <CommentForm v-if="show.takesComments" :page-address="episode.pageAddress" :show-name="show.name" />
    </section>
    <nav v-if="before || after" class="neighbours" :aria-label="t('otherEpisodes')">
      <a v-if="before" rel="prev" :href="before.pageAddress"
        ><span>{{ t('previousEpisode') }}</span> {{ before.title }}</a
      >
      <a v-if="after" rel="next" :href="after.pageAddress"
        ><span>{{ t('nextEpisode') }}</span> {{ after.title }}</a
      >
    </nav>
    <FeedAddress :show="show" />
  </PageFrame>
</template>
