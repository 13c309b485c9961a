<script setup lang="ts">
import { mostSearchLetters } from '@core/search/query'
import { clock } from '@core/words/amounts'
import EpisodeHead from './EpisodeHead.vue'
import PageFrame from './PageFrame.vue'
import SearchForm from './SearchForm.vue'
import SoundPlayer from './SoundPlayer.vue'
import type { SearchPage } from './facts'
import { placeNames, playerOf, playing } from './words'
import { FormattedMessage, useMessages } from './useMessages'

const props = defineProps<SearchPage>()
const [first] = props.found
const outcome = `searchFound${props.hasAllWords ? '' : 'Some'}${props.isCut ? 'Best' : ''}` as const
const soundAt = (address: string, fromMs: number): string => `${address}#t=${fromMs / 1000}`
const { t } = useMessages()
</script>

<template>
  <PageFrame :show="show" here="search">
    <h1>{{ t('searchHeading') }}</h1>
    <SearchForm :show="show" :words="words" />
    <p v-if="isTooLong" class="quiet">{{ t('searchTooLong', { count: mostSearchLetters }) }}</p>
    <p v-if="words === ''" class="quiet">{{ t('searchHint') }}</p>
    <p v-else-if="!found.length">
      <FormattedMessage of="searchNothing" :values="{ show: show.name, words }">
        <template #episodes="{ words: name }"
          ><a :href="`${show.pageAddress}/episodes`">{{ name }}</a></template
        >
      </FormattedMessage>
    </p>
    <template v-else>
      <p class="quiet" role="status">{{ t(outcome, { count: found.length }) }}</p>
      <ol class="found">
        <li v-for="{ episode, places } in found" :key="episode.pageAddress" v-bind="playing(show, episode, 'page')">
          <EpisodeHead :show="show" :episode="episode" />
          <ul>
            <li v-for="(place, at) in places" :key="at">
              <a
                v-if="place.fromMs !== null"
                class="from figures"
                :aria-label="t('playFrom', { time: clock(place.fromMs) })"
                :href="soundAt(episode.sound.address, place.fromMs)"
                data-plays
                >{{ clock(place.fromMs) }}</a
              >
              <span v-else class="from quiet">{{ t(placeNames[place.kind]) }}</span>
              <p>
                <b v-if="place.speaker">{{ place.speaker }}: </b
                ><template v-for="(part, index) in place.parts" :key="index"
                  ><mark v-if="part.isHit">{{ part.text }}</mark
                  ><template v-else>{{ part.text }}</template></template
                >
              </p>
            </li>
          </ul>
        </li>
      </ol>
      <div v-if="first" class="hearing" data-hearing hidden>
        <p>
          <a class="episode-title" data-heard :href="first.episode.pageAddress">{{ first.episode.title }}</a>
        </p>
        <SoundPlayer v-bind="playerOf(show, first.episode, first.episode.sound)" />
      </div>
    </template>
  </PageFrame>
</template>
