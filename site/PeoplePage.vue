<script setup lang="ts">
import PageFrame from './PageFrame.vue'
import WebPicture from './WebPicture.vue'
import type { PeoplePage } from './facts'

defineProps<PeoplePage>()
</script>

<template>
  <PageFrame :show="show" here="people">
    <h1>People in this show</h1>
    <p v-if="people.length === 0" class="quiet">{{ show.name }} is made by {{ show.author }}.</p>
    <ul class="everybody">
      <li v-for="person in people" :key="person.name">
        <WebPicture
          v-if="person.pictureAddress"
          class="face"
          :address="person.pictureAddress"
          :width="64"
          :height="64"
          is-lazy
        />
        <div>
          <h2>
            <a v-if="person.address" :href="person.address">{{ person.name }}</a><template v-else>{{
              person.name
            }}</template>
          </h2>
          <p v-if="person.roles.length" class="quiet">{{ person.roles.join(', ') }}</p>
          <ul v-if="person.count" class="heard-in">
            <li v-for="episode in person.episodes" :key="episode.pageAddress">
              <a :href="episode.pageAddress">{{ episode.title }}</a>
            </li>
            <li v-if="person.count > person.episodes.length" class="quiet">
              and {{ person.count - person.episodes.length }} more
            </li>
          </ul>
        </div>
      </li>
    </ul>
  </PageFrame>
</template>
