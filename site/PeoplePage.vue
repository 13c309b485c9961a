<script setup lang="ts">
import PageFrame from './PageFrame.vue'
import WebPicture from './WebPicture.vue'
import type { PeoplePage } from './facts'
import { useMessages } from './useMessages'
import { roleName } from './words'

defineProps<PeoplePage>()
const { list, t } = useMessages()
</script>

<template>
  <PageFrame :show="show" here="people">
    <h1>{{ t('peopleInShow') }}</h1>
    <p v-if="people.length === 0" class="quiet">{{ t('peopleMadeBy', { show: show.name, author: show.author }) }}</p>
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
          <p v-if="person.roles.length" class="quiet">{{ list(person.roles.map(role => roleName(role, t))) }}</p>
          <ul v-if="person.count" class="heard-in">
            <li v-for="episode in person.episodes" :key="episode.pageAddress">
              <a :href="episode.pageAddress">{{ episode.title }}</a>
            </li>
            <li v-if="person.count > person.episodes.length" class="quiet">
              {{ t('peopleMore', { count: person.count - person.episodes.length }) }}
            </li>
          </ul>
        </div>
      </li>
    </ul>
  </PageFrame>
</template>
