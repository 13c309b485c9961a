<script setup lang="ts">
import { artworkAt } from '@core/show/artwork'
import { amount, clock } from '@core/words/amounts'
import FeedAddress from './FeedAddress.vue'
import type { PublicEpisode, PublicShow } from './facts'
import { fileName, paragraphs, releaseDay, siteOf } from './words'

defineProps<{ show: PublicShow; episode: PublicEpisode }>()
</script>

<template>
  <header class="masthead small">
    <div class="column masthead-row">
      <img class="artwork" :src="artworkAt(show.artworkAddress, 160)" alt="" width="64" height="64" />
      <a class="show-name" :href="show.pageAddress">{{ show.name }}</a>
    </div>
    <div class="shore" aria-hidden="true" />
  </header>
  <main class="column">
    <article>
      <img
        v-if="episode.artworkAddress"
        class="artwork own"
        :src="artworkAt(episode.artworkAddress, 480)"
        alt=""
        width="200"
        height="200"
      />
      <h1>{{ episode.title }}</h1>
      <p v-if="episode.hook" class="lead">{{ episode.hook }}</p>
      <p class="meta">
        <span v-if="episode.number">No. {{ episode.number }}</span>
        <time v-if="episode.releasedAt" :datetime="episode.releasedAt">{{ releaseDay(episode.releasedAt, show) }}</time>
        <span v-if="episode.sound" class="figures">{{ clock(episode.sound.durationMs) }}</span>
        <span v-if="episode.author">by {{ episode.author }}</span>
        <span v-if="episode.isExplicit">Explicit</span>
        <span v-if="episode.isPromotion">Contains paid promotion</span>
      </p>
      <div v-if="episode.sound" class="player" data-player :data-duration-ms="episode.sound.durationMs">
        <audio controls preload="none" :src="episode.sound.address" />
      </div>
      <section v-if="episode.sound && episode.chapters.length" aria-labelledby="chapters">
        <h2 id="chapters" class="section">Chapters</h2>
        <ol class="chapters" data-chapters>
          <li v-for="chapter in episode.chapters" :key="chapter.fromMs" :data-from-ms="chapter.fromMs">
            <!-- Without script it leads to the sound at that place (W3C Media Fragments 1.0, section 4.2.1). -->
            <a class="figures" :href="`${episode.sound.address}#t=${chapter.fromMs / 1000}`" data-at>{{
              clock(chapter.fromMs)
            }}</a>
            <img
              v-if="chapter.pictureAddress"
              :src="chapter.pictureAddress"
              alt=""
              width="40"
              height="40"
              loading="lazy"
            />
            <span>{{ chapter.title }}</span>
            <a v-if="chapter.address" class="small" :href="chapter.address">{{ siteOf(chapter.address) }}</a>
          </li>
        </ol>
      </section>
      <section v-if="episode.sound && episode.soundbites.length" aria-labelledby="soundbites">
        <h2 id="soundbites" class="section">Short pieces to pass on</h2>
        <ul class="chapters soundbites" data-soundbites>
          <li
            v-for="soundbite in episode.soundbites"
            :key="soundbite.fromMs"
            :data-from-ms="soundbite.fromMs"
            :data-to-ms="soundbite.toMs"
          >
            <a
              class="figures"
              :href="`${episode.sound.address}#t=${soundbite.fromMs / 1000},${soundbite.toMs / 1000}`"
              data-at
              >{{ clock(soundbite.fromMs) }}</a
            >
            <span>{{ soundbite.title }}</span>
            <a v-if="soundbite.address" class="small" :href="soundbite.address" download
              >{{ clock(soundbite.toMs - soundbite.fromMs) }} as MP3</a
            >
          </li>
        </ul>
      </section>
      <!-- eslint-disable-next-line vue/no-v-html -- cleaned by core/notes before it was kept -->
      <div class="notes" v-html="episode.notesHtml" />
      <section v-if="episode.said.length || episode.transcriptFiles.length" aria-labelledby="transcript">
        <details class="transcript" :open="episode.said.length <= 12">
          <summary><h2 id="transcript" class="section">Transcript</h2></summary>
          <p v-if="episode.transcriptFiles.length" class="small quiet files">
            <template v-for="(file, index) in episode.transcriptFiles" :key="file.address"
              ><template v-if="index">, </template
              ><a :href="file.address">{{ fileName(file, episode.transcriptFiles) }}</a></template
            >
          </p>
          <div class="said" data-said>
            <p
              v-for="(paragraph, index) in paragraphs(episode.said)"
              :key="index"
              :class="{ 'with-name': paragraph.speaker }"
            >
              <b v-if="paragraph.speaker">{{ paragraph.speaker }}</b><template
                v-for="(cue, at) in paragraph.cues"
                :key="at"
                ><a
                  v-if="cue.fromMs !== null && episode.sound"
                  class="cue"
                  data-at
                  :data-from-ms="cue.fromMs"
                  :href="`${episode.sound.address}#t=${cue.fromMs / 1000}`"
                  >{{ cue.text }}</a
                ><template v-else>{{ cue.text }}</template
                >{{ ' ' }}</template
              >
            </p>
          </div>
        </details>
      </section>
      <section v-if="episode.people.length" aria-labelledby="people">
        <h2 id="people" class="section">People</h2>
        <ul class="people">
          <li v-for="person in episode.people" :key="person.name + person.role">
            <img
              v-if="person.pictureAddress"
              class="face"
              :src="person.pictureAddress"
              alt=""
              width="40"
              height="40"
              loading="lazy"
            />
            <a v-if="person.address" :href="person.address">{{ person.name }}</a>
            <template v-else>{{ person.name }}</template>{{ ' ' }}<span class="quiet">{{ person.role }}</span>
          </li>
        </ul>
      </section>
      <ul v-if="episode.tags.length" class="tags" aria-label="Tags">
        <li v-for="tag in episode.tags" :key="tag">{{ tag }}</li>
      </ul>
      <p v-if="episode.page || episode.discussion">
        <a v-if="episode.page" :href="episode.page">More about this episode</a>
        <template v-if="episode.page && episode.discussion"> · </template>
        <a v-if="episode.discussion" :href="episode.discussion">Talk about it</a>
      </p>
      <p v-if="episode.place || episode.licence" class="quiet">
        <template v-if="episode.place">Recorded at {{ episode.place }}.{{ ' ' }}</template>
        <template v-if="episode.licence">Licence: {{ episode.licence }}.</template>
      </p>
      <p v-if="episode.sound" class="quiet">
        <a :href="episode.sound.address" download>Download the sound</a> ({{ amount(episode.sound.bytes) }})
      </p>
    </article>
    <FeedAddress :address="show.feedAddress" :elsewhere="show.subscribe" />
  </main>
</template>
